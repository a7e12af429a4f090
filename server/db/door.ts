import { AsyncLocalStorage } from 'node:async_hooks'
import type { SQL } from 'drizzle-orm'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import type pg from 'pg'
import * as schema from './schema'

export type Database = NodePgDatabase<typeof schema>

interface Visit { database: Database, connection: pg.PoolClient, afterCommit: (() => void)[] }

const visit = new AsyncLocalStorage<Visit>()
const onConnection = new WeakMap<pg.PoolClient, Database>()
let pool: pg.Pool | null = null
let outside: Database | null = null
let visits = 0

/** Opens the door onto a database; a second call closes nothing and replaces the first (tests). */
export function openDoor(onto: pg.Pool): void {
  pool = onto
  onto.on('acquire', () => visits++)
  outside = drizzle(onto, { schema })
}

/** How often somebody has come to the database so far: by it, long work notices that others came meanwhile. */
export const visitsSoFar = (): number => visits

/** Made once for each connection: Drizzle reads the whole schema each time it is made. */
function databaseOn(connection: pg.PoolClient): Database {
  const known = onConnection.get(connection) ?? drizzle(connection, { schema })
  onConnection.set(connection, known)
  return known
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
  return onOneConnection(async (database, connection, leave) => {
    try {
      await connection.query('begin')
      const result = await work(database)
      await connection.query('commit')
      return result
    }
    catch (error) {
      await connection.query('rollback').catch(leave)
      throw error
    }
  })
}

/**
 * Work inside of a `tx` that, if it fails, leaves no trace of itself and lets the rest go on.
 *
 * @throws whatever the work throws; only it has been undone
 */
export async function savepoint<T>(work: () => Promise<T>): Promise<T> {
  const inside = visit.getStore()
  if (!inside) throw new Error('There is no transaction to go back in.')
  const announced = inside.afterCommit.length
  await inside.connection.query('savepoint part')
  try {
    const result = await work()
    await inside.connection.query('release savepoint part')
    return result
  }
  catch (error) {
    inside.afterCommit.length = announced
    await inside.connection.query('rollback to savepoint part')
    throw error
  }
}

/**
 * Waits for a connection and then does work that is one statement, and so needs no transaction around it.
 * For work that is put together at the last moment, when it is known what there is to do.
 *
 * Never inside of a `tx`: it would wait for a connection that its own transaction holds.
 */
export async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (visit.getStore()) throw new Error('Already inside of a transaction.')
  return onOneConnection(() => work())
}

/** @param work may say that the connection is broken, so that no one gets it again */
async function onOneConnection<T>(work: (database: Database, connection: pg.PoolClient, leave: (broken: Error) => void) => Promise<T>): Promise<T> {
  if (!pool) throw new Error('The database is not open.')
  const connection = await pool.connect()
  const afterCommit: (() => void)[] = []
  let broken: Error | undefined
  let result: T
  try {
    const database = databaseOn(connection)
    result = await visit.run({ database, connection, afterCommit }, () => work(database, connection, error => broken = error))
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
  const database = visit.getStore()?.database ?? outside
  if (!database) throw new Error('The database is not open.')
  return await database.execute(statement) as unknown as { rows: Row[] }
}

/** The same for a statement whose words are put together already (`statement` makes these). */
export async function runOne<Row extends Record<string, unknown>>(text: string, values: unknown[]): Promise<{ rows: Row[] }> {
  const runner = visit.getStore()?.connection ?? pool
  if (!runner) throw new Error('The database is not open.')
  return runner.query<Row>({ text, values })
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
