import type pg from 'pg'

/** A table with the columns that are written: what the database computes by itself is computed there again. */
export interface Table { name: string, columns: { name: string, type: string }[] }

type Asked = Pick<pg.ClientBase, 'query'>

export async function tablesOf(database: Asked): Promise<Table[]> {
  const { rows } = await database.query<{ table: string, name: string, type: string }>(`
    select c.relname as table, a.attname as name, format_type(a.atttypid, a.atttypmod) as type
    from pg_class c join pg_namespace n on n.oid = c.relnamespace join pg_attribute a on a.attrelid = c.oid
    where n.nspname = 'public' and c.relkind = 'r' and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''
    order by 1, a.attnum`)
  const tables = new Map<string, Table>()
  for (const { table, ...column } of rows) {
    const known = tables.get(table) ?? { name: table, columns: [] }
    known.columns.push(column)
    tables.set(table, known)
  }
  return [...tables.values()]
}

/** How many rows each table has, and the sum of a hash of each, which no order of rows changes. */
export async function sumsOf(database: Asked, tables: Table[]): Promise<Record<string, { rows: string, sum: string }>> {
  const sums: Record<string, { rows: string, sum: string }> = {}
  for (const { name, columns } of tables) {
    const row = columns.map(column => `"${column.name}"::text`).join(', ')
    const { rows: [found] } = await database.query<{ rows: string, sum: string }>(`
      select count(*)::text as rows, coalesce(sum(('x' || substr(md5(row(${row})::text), 1, 15))::bit(60)::bigint::numeric), 0)::text as sum
      from "${name}"`)
    sums[name] = found!
  }
  return sums
}
