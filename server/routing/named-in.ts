import { isSchema, type AnySchema, type ISchema, type Lazy } from 'yup'
import type { NamedId } from './named'

type Described = AnySchema & { fields?: Record<string, ISchema<unknown>>, innerType?: ISchema<unknown> }

/** Every id in what was sent, with what its schema says that it names. */
export function namedIn(schema: ISchema<unknown> | undefined, value: unknown): NamedId[] {
  if (!schema || value === null || value === undefined) return []
  const { fields, innerType, spec } = (isSchema(schema) ? (schema as Lazy<unknown>).resolve({ value } as never) : schema) as Described
  const names = spec?.meta?.names
  if (typeof names === 'function') {
    const named = names(value)
    return named ? [named] : []
  }
  if (typeof value === 'string') return names ? [{ what: names, id: value }] : []
  if (Array.isArray(value)) return value.flatMap(one => namedIn(innerType, one))
  return fields ? Object.entries(fields).flatMap(([key, field]) => namedIn(field, (value as Record<string, unknown>)[key])) : []
}
