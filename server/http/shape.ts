import { isSchema, type AnySchema, type ISchema, type Lazy } from 'yup'

type Described = AnySchema & { fields?: Record<string, ISchema<unknown>>, innerType?: ISchema<unknown> }

/** What these take is written in one piece. */
const IN_ONE_PIECE = new Set(['string', 'number', 'boolean', 'date'])

/**
 * Where a list or a form stands in the place of a word or a number. Yup would ask these for what only words can do.
 *
 * @returns a message for each place, by its path
 */
export function misshapen(schema: ISchema<unknown> | undefined, value: unknown, path = ''): Record<string, string> {
  if (!schema || value === null || typeof value !== 'object') return {}
  const { type, fields, innerType } = (isSchema(schema) ? (schema as Lazy<unknown>).resolve({ value } as never) : schema) as Described
  if (IN_ONE_PIECE.has(type)) return { [path]: `This takes one ${type === 'string' ? 'word or text' : type === 'boolean' ? 'yes or no' : type}, and no ${Array.isArray(value) ? 'list' : 'form'}.` }
  if (Array.isArray(value)) return together(value.map((one, i) => misshapen(innerType, one, `${path}[${i}]`)))
  return together(Object.entries(fields ?? {}).map(([key, field]) => misshapen(field, Object.hasOwn(value, key) ? (value as Record<string, unknown>)[key] : undefined, path ? `${path}.${key}` : key)))
}

const together = (found: Record<string, string>[]): Record<string, string> => Object.assign({}, ...found) as Record<string, string>
