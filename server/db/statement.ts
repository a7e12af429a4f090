import { fillPlaceholders, sql, type Placeholder, type SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { runOne } from './door'

/**
 * A statement that is written down once and then run with values: for the few that run with every text,
 * where putting the words together costs as much as running them. Inside of a `tx` it joins it; outside
 * it is a transaction by itself.
 *
 * @example
 * const lineNamed = statement<{ name: string }, { id: string }>(value => sql`select id from ${line} where name = ${value('name')}`)
 * const { rows } = await lineNamed({ name: 'Front desk' })
 */
export function statement<Values extends Record<string, unknown>, Row extends Record<string, unknown>>(
  write: (value: (name: keyof Values & string) => Placeholder) => SQL,
): (values: Values) => Promise<{ rows: Row[] }> {
  let written: { sql: string, params: unknown[] } | null = null
  return (values) => {
    written ??= new PgDialect().sqlToQuery(write(name => sql.placeholder(name)))
    return runOne<Row>(written.sql, fillPlaceholders(written.params, values))
  }
}
