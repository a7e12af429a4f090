import type pg from 'pg'
import { openEmbedded } from '../db/embedded/open'

/** How many rows each table of a database has, and how many changes of the tables it has seen. */
async function count(pool: pg.Pool): Promise<{ rows: Record<string, number>, migrations: number }> {
  const { rows: tables } = await pool.query<{ name: string }>('select tablename as name from pg_tables where schemaname = \'public\' order by 1')
  const rows: Record<string, number> = {}
  for (const { name } of tables) {
    const { rows: [found] } = await pool.query<{ count: number }>(`select count(*)::int as count from "${name}"`)
    rows[name] = found!.count
  }
  const { rows: [seen] } = await pool.query<{ count: number }>('select count(*)::int as count from drizzle.__drizzle_migrations')
  return { rows, migrations: seen!.count }
}

/** Opens the files of a database, which changes them, and counts what is in it. */
export async function countIn(folder: string, threadFile: string): Promise<{ rows: Record<string, number>, migrations: number }> {
  const database = await openEmbedded(threadFile, { folder })
  try {
    return await count(database.pool)
  }
  finally {
    await database.close()
  }
}
