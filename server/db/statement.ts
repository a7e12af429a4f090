import { fillPlaceholders, sql, type Placeholder, type SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { runOne } from './door'

type Written<Values> = (value: (name: keyof Values & string) => Placeholder) => SQL
type Run<Values, Row> = (values: Values) => Promise<{ rows: Row[] }>

/**
 * A statement that is written down once and then run with values: for the few that run with every text,
 * where putting the words together costs as much as running them. Inside of a `tx` it joins it; outside
 * it is a transaction by itself.
 *
 * @example
 * const renameLine = statement<{ id: string, name: string }, { id: string }>(value => sql`update ${line} set name =
 * ${value('name')} where id = ${value('id')}::uuid returning id`)
 * const { rows } = await renameLine({ id, name: 'Front desk' })
 */
export const statement = <Values extends Record<string, unknown>, Row extends Record<string, unknown>>(
  write: Written<Values>,
): Run<Values, Row> => writtenOnce(write, true)

/** The same for one that only reads, and so needs no transaction. */
export const question = <Values extends Record<string, unknown>, Row extends Record<string, unknown>>(
  write: Written<Values>,
): Run<Values, Row> => writtenOnce(write, false)

function writtenOnce<Values extends Record<string, unknown>, Row extends Record<string, unknown>>(
  write: Written<Values>,
  changes: boolean,
): Run<Values, Row> {
  let written: { sql: string, params: unknown[] } | null = null
  return (values) => {
    written ??= new PgDialect().sqlToQuery(write(name => sql.placeholder(name)))
    return runOne<Row>(written.sql, fillPlaceholders(written.params, values), changes)
  }
}
