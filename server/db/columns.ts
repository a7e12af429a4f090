import { sql } from 'drizzle-orm'
import { check, customType, timestamp, uuid, type AnyPgColumn } from 'drizzle-orm/pg-core'

/** An instant, to the millisecond, as the application makes them. */
export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 })

/** A UUIDv7 (RFC 9562), made by the application or the browser, never by the database. */
export const id = (name = 'id') => uuid(name)

/** Whatever is no text: a picture, a sound. */
export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** Which way a text or a call goes. */
export const DIRECTIONS = ['out', 'in'] as const

/**
 * Of a column as a table's further constraints see it, Drizzle shows what its `enum` was only here; a test finds all of
 * them in the database.
 */
interface Column { name: string, config: { enumValues?: string[] } }

/** A check for each column of a table that says which words may stand in it: what the types promise, the database keeps. */
export function knownValues(tableName: string, columns: Record<string, AnyPgColumn>) {
  return Object.values(columns).flatMap((column) => {
    const { name, config } = column as unknown as Column
    const values = config.enumValues ?? []
    return values.length === 0
      ? []
      : [check(`${tableName}_${name}_known`, sql`${column} in (${sql.raw(values.map(value => `'${value}'`).join(', '))})`)]
  })
}
