import { getTableColumns, getTableName, sql } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import { once } from './door'

/**
 * Inserts many rows as one parameter: the statement stays the same however many they are, and nothing is
 * put together cell by cell. What a row leaves out is null. The schema is named, for
 * `record` alone would be PostgreSQL's own type of that name.
 */
export async function insertAll<T extends PgTable>(table: T, rows: T['$inferInsert'][]): Promise<void> {
  if (rows.length === 0) return
  const columns = getTableColumns(table) as Record<string, PgColumn>
  // what the database computes itself is not given to it
  const written = sql.join(Object.values(columns).filter(({ generated }) => !generated).map(({ name }) => sql.identifier(name)), sql`, `)
  const given = rows.map(row => Object.fromEntries(Object.entries(row).map(([key, value]) => [columns[key]!.name, value])))
  await once(sql`insert into ${table} (${written}) select ${written}
    from jsonb_populate_recordset(null::public.${sql.identifier(getTableName(table))}, ${JSON.stringify(given)}::jsonb)`)
}
