import { isSchema, type AnySchema, type ISchema, type Lazy } from 'yup'

type Described = AnySchema & { fields?: Record<string, ISchema<unknown>>, innerType?: ISchema<unknown> }

/** What these take is written in one piece. */
const IN_ONE_PIECE = new Set(['string', 'number', 'boolean', 'date'])

/**
 * Where a list or a form stands in the place of a word or a number, or a form has a field of a name that every object has. Yup
 * would ask these for what only words, or schemas, can do.
 *
 * @returns a message for each place, by its path
 */
export function misshapen(schema: ISchema<unknown> | undefined, value: unknown, path = ''): Record<string, string> {
  if (!schema || value === null || value === undefined) return {}
  const { type, fields, innerType } = (isSchema(schema) ? (schema as Lazy<unknown>).resolve({ value } as never) : schema) as Described
  if (typeof value !== 'object') return type === 'object' ? { [path]: 'This takes a form, and no single word or number.' } : {}
  if (IN_ONE_PIECE.has(type))
    return {
      [path]: `This takes one ${type === 'string' ? 'word or text' : type === 'boolean' ? 'yes or no' : type}, and no ${Array.isArray(value) ? 'list' : 'form'}.`,
    }
  if (Array.isArray(value))
    return together(
      value.map((one, i) =>
        one === null && isOfForms(innerType)
          ? { [`${path}[${i}]`]: 'Something is missing in this list.' }
          : misshapen(innerType, one, `${path}[${i}]`),
      ),
    )
  const inherited = Object.keys(fields ? value : {}).filter(key => key in Object.prototype && !Object.hasOwn(fields!, key))
  if (inherited.length > 0)
    return Object.fromEntries(inherited.map(key => [path ? `${path}.${key}` : key, 'No form has a field of this name.']))
  return together(
    Object.entries(fields ?? {}).map(([key, field]) =>
      misshapen(field, Object.hasOwn(value, key) ? (value as Record<string, unknown>)[key] : undefined, path ? `${path}.${key}` : key),
    ),
  )
}

/** What looks at a list as a whole takes each of it for a form. */
const isOfForms = (inner: ISchema<unknown> | undefined): boolean =>
  isSchema(inner) && (inner as Described).type === 'object' && !(inner as Described).spec.nullable

const together = (found: Record<string, string>[]): Record<string, string> => Object.assign({}, ...found) as Record<string, string>
