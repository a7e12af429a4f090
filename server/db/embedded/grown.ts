import type pg from 'pg'

/** A table that has grown by so much is another one to whoever plans. */
const GROWTH = 1.2
const FEW_PAGES = 8

/**
 * Fresh statistics for tables that have grown much since the last ones: a plan that is kept was made for a table of the
 * size that they say, and statistics are what lets it go. A server sees to that by itself; the embedded database keeps
 * no count of changes, so the size of its files has to tell.
 */
export async function analyzeGrown(pool: Pick<pg.Pool, 'query'>): Promise<void> {
  const { rows } = await pool.query<{ name: string }>(`
    select quote_ident(c.relname) as name from pg_class c
    where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace
      and pg_relation_size(c.oid) > ${GROWTH} * current_setting('block_size')::int * greatest(c.relpages, ${FEW_PAGES})`)
  for (const { name } of rows) await pool.query(`analyze ${name}`)
}
