import { AsyncLocalStorage } from 'node:async_hooks'
import type { SQL } from 'drizzle-orm'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import type pg from 'pg'
import { prepareStatements } from './prepared'
import * as schema from './schema'

export type Database = NodePgDatabase<typeof schema>

interface Visit { database: Database, afterCommit: (() => void)[] }

const visit = new AsyncLocalStorage<Visit>()
let pool: pg.Pool | null = null

/** Opens the door onto a database; a second call closes nothing and replaces the first (tests). */
export function openDoor(onto: pg.Pool): void {
  onto.on('connect', prepareStatements)
  pool = onto
}

/**
 * The one door to the database. Everything inside is one transaction; a `tx` inside of a `tx` joins it.
 * Nothing inside may await the network or a hash: with the embedded database everybody waits.
 *
 * @throws whatever the work throws, after rolling back
 */
export async function tx<T>(work: (database: Database) => Promise<T>): Promise<T> {
  const inside = visit.getStore()
  if (inside) return work(inside.database)
  if (!pool) throw new Error('The database is not open.')
  const connection = await pool.connect()
  const afterCommit: (() => void)[] = []
  let broken: Error | undefined
  let result: T
  try {
    await connection.query('begin')
    const database = drizzle(connection, { schema })
    result = await visit.run({ database, afterCommit }, () => work(database))
    await connection.query('commit')
  }
  catch (error) {
    await connection.query('rollback').catch((failure: Error) => broken = failure)
    throw error
  }
  finally {
    connection.release(broken)
  }
  for (const act of afterCommit) act()
  return result
}

/**
 * One statement, which is a transaction by itself and needs no more; inside of a `tx` it joins it.
 */
export async function once<Row extends Record<string, unknown>>(statement: SQL): Promise<{ rows: Row[] }> {
  const inside = visit.getStore()
  if (!inside && !pool) throw new Error('The database is not open.')
  const database = inside?.database ?? drizzle(pool!, { schema })
  return await database.execute(statement) as unknown as { rows: Row[] }
}

/**
 * Runs once the transaction around has committed, and never if it does not. Outside of any, what it is
 * about is committed already, and it runs at once.
 */
export function afterCommit(act: () => void): void {
  const inside = visit.getStore()
  if (inside) inside.afterCommit.push(act)
  else act()
}
