import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import { FolderInUse, lockFolder } from '../db/folder-lock'
import { openEmbedded } from '../db/embedded/open'
import { bringUpToDate } from '../db/server/migrate'
import { PlainError } from '../log/failure'
import { sumsOf, tablesOf, type Table } from './tables'

interface Moving {
  dataFolder: string
  /** Of an empty database of a PostgreSQL server. */
  url: string
  /** The bundled thread of the embedded database. */
  threadFile: string
  migrationsFolder: string
  /** Called for each table once its rows are there. */
  onTable?: (name: string, rows: number) => void
}

/** Rows that are read at once; of tables with pictures and sounds far fewer. */
const ROWS_AT_ONCE = 500
const LARGE_ROWS_AT_ONCE = 8

/**
 * Brings all that is in an embedded database, of a Plauder that does not run, into an empty one of a server. Both are held against
 * each other, table by table, by their counts and checksums, before anything of it stands; what was embedded stays as it is.
 *
 * @returns how many rows were brought over
 * @throws PlainError with nothing changed: where there is no database, a Plauder runs on it, the server's is not empty, or they differ
 */
export async function moveToServer({ dataFolder, url, threadFile, migrationsFolder, onTable }: Moving): Promise<number> {
  const folder = join(dataFolder, 'database')
  if (!existsSync(join(folder, 'PG_VERSION')))
    throw new PlainError(`There is no embedded database in ${dataFolder}. Name its data folder in PLAUDER_DATA.`)
  const unlock = await lockFolder(dataFolder).catch((error) => {
    throw error instanceof FolderInUse ? new PlainError('A Plauder runs on this database. Stop it first: what it took in meanwhile would be lost.') : error
  })
  try {
    await mustBeEmpty(url)
    const embedded = await openEmbedded(threadFile, { folder })
    try {
      await migrate(drizzle(embedded.pool), { migrationsFolder })
      await bringUpToDate(url, migrationsFolder)
      return await copyAll(embedded.pool, url, onTable)
    }
    finally {
      await embedded.close()
    }
  }
  finally {
    unlock()
  }
}

/** A database in which the tables are, without a row in any of them, was begun and not filled: it counts as empty. */
async function mustBeEmpty(url: string): Promise<void> {
  const server = await connect(url)
  try {
    for (const { name } of await tablesOf(server)) {
      const { rows } = await server.query(`select 1 from "${name}" limit 1`)
      if (rows.length > 0) throw new PlainError('There is something in that database already. Make an empty one: createdb plauder.')
    }
  }
  finally {
    await server.end()
  }
}

async function connect(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, application_name: 'plauder' })
  await client.connect().catch((error: Error) => {
    throw new PlainError(`The server cannot be reached: ${error.message}`)
  })
  return client
}

/** In one transaction on the server: it has all, or nothing. */
async function copyAll(from: pg.Pool, url: string, onTable: Moving['onTable']): Promise<number> {
  const to = await connect(url)
  const source = await from.connect()
  try {
    await to.query('begin')
    const bind = await unbind(to)
    let all = 0
    for (const table of await tablesOf(source)) {
      const rows = await copy(source, to, table)
      onTable?.(table.name, rows)
      all += rows
    }
    await bind()
    await mustBeAlike(source, to)
    await to.query('commit')
    await to.query('analyze')
    return all
  }
  finally {
    source.release()
    await to.end()
  }
}

/**
 * Takes the ties between tables and their triggers away, so that rows may come in any order. Whoever owns the tables may do so.
 *
 * @returns how to put them back; a row that names one which is not there is found then
 */
async function unbind(to: pg.Client): Promise<() => Promise<void>> {
  const { rows: ties } = await to.query<{ table: string, name: string, is: string }>(`
    select c.conrelid::regclass::text as table, quote_ident(c.conname) as name, pg_get_constraintdef(c.oid) as is
    from pg_constraint c join pg_namespace n on n.oid = c.connamespace where n.nspname = 'public' and c.contype = 'f'`)
  const tables = await tablesOf(to)
  for (const { table, name } of ties) await to.query(`alter table ${table} drop constraint ${name}`)
  for (const { name } of tables) await to.query(`alter table "${name}" disable trigger user`)
  return async () => {
    for (const { name } of tables) await to.query(`alter table "${name}" enable trigger user`)
    for (const { table, name, is } of ties) await to.query(`alter table ${table} add constraint ${name} ${is}`)
  }
}

/** Every value goes as the text that the database itself writes, and comes back as what it was. */
async function copy(from: pg.PoolClient, to: pg.Client, { name, columns }: Table): Promise<number> {
  const names = columns.map(column => `"${column.name}"`).join(', ')
  const atOnce = columns.some(({ type }) => type === 'bytea') ? LARGE_ROWS_AT_ONCE : ROWS_AT_ONCE
  const insert = `insert into "${name}" (${names}) select ${columns.map(({ type }, i) => `v${i}::${type}`).join(', ')}
    from unnest(${columns.map((_, i) => `$${i + 1}::text[]`).join(', ')}) rows (${columns.map((_, i) => `v${i}`).join(', ')})`
  await from.query('begin')
  await from.query(`declare moving no scroll cursor for select ${columns.map((column, i) => `"${column.name}"::text as v${i}`).join(', ')} from "${name}"`)
  let all = 0
  for (;;) {
    const { rows } = await from.query<Record<string, string | null>>(`fetch ${atOnce} from moving`)
    if (rows.length === 0) break
    await to.query(insert, columns.map((_, i) => rows.map(row => row[`v${i}`])))
    all += rows.length
  }
  await from.query('commit')
  return all
}

async function mustBeAlike(from: pg.PoolClient, to: pg.Client): Promise<void> {
  const tables = await tablesOf(from)
  const [here, there] = [await sumsOf(from, tables), await sumsOf(to, tables)]
  const other = tables.find(({ name }) => here[name]!.rows !== there[name]!.rows || here[name]!.sum !== there[name]!.sum)
  if (!other) return
  throw new PlainError(`The table ${other.name} is not the same on both sides: ${here[other.name]!.rows} rows here, ${there[other.name]!.rows} there. Nothing was kept there.`)
}
