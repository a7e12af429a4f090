import { AsyncLocalStorage } from 'node:async_hooks'
import type { SQL } from 'drizzle-orm'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import type pg from 'pg'
import { lostAgainstAnother } from './clash'
import * as schema from './schema'

export type Database = NodePgDatabase<typeof schema>

interface Visit {
  database: Database
  connection: pg.PoolClient
  afterCommit: (() => void)[]
  /** Set once a statement lost against another transaction: whatever is made of that, nothing of this one may stand. */
  lost?: unknown
}

/** How transactions go where several run beside each other. */
export interface Beside {
  /** Does work again that lost against another transaction, and tells it whether it is to be alone this time. */
  until: <T>(work: (alone: boolean) => Promise<T>) => Promise<T>
  begin: (connection: pg.PoolClient, alone: boolean) => Promise<void>
  left: (connection: pg.PoolClient, alone: boolean) => Promise<void>
}

/** In the one session of the embedded database, whoever begins is alone. */
const IN_TURNS: Beside = {
  until: work => work(true),
  begin: async connection => void await connection.query('begin'),
  left: async () => {},
}

const visit = new AsyncLocalStorage<Visit>()
const onConnection = new WeakMap<pg.PoolClient, Database>()
let pool: pg.Pool | null = null
let outside: Database | null = null
let beside = IN_TURNS

/**
 * Opens the door onto a database; a second call closes nothing and replaces the first (tests).
 *
 * @param how transactions go; left out, in turns
 */
export function openDoor(onto: pg.Pool, how: Beside = IN_TURNS): void {
  pool = onto
  beside = how
  outside = drizzle(onto, { schema })
}

/** Whether everybody waits for everybody: the embedded database has one session, in which long work makes room for others. */
export const inTurns = (): boolean => beside === IN_TURNS

/** Made once for each connection: Drizzle reads the whole schema each time it is made. */
function databaseOn(connection: pg.PoolClient): Database {
  const known = onConnection.get(connection) ?? drizzle(connection, { schema })
  onConnection.set(connection, known)
  return known
}

/**
 * The one door to the database. Everything inside is one transaction; a `tx` inside of a `tx` joins it.
 * Nothing inside may await the network or a hash: with the embedded database everybody waits. On a server the work is
 * done again where another transaction was in its way, so it may change nothing but the database.
 *
 * @throws whatever the work throws, after rolling back
 */
export async function tx<T>(work: (database: Database) => Promise<T>): Promise<T> {
  const inside = visit.getStore()
  if (inside) return work(inside.database)
  return beside.until(alone => onOneConnection(async (visiting, leave) => {
    const { database, connection } = visiting
    try {
      await beside.begin(connection, alone)
      const result = await work(database)
      if (visiting.lost) throw visiting.lost
      await connection.query('commit')
      return result
    }
    catch (error) {
      await connection.query('rollback').catch(leave)
      throw error
    }
    finally {
      await beside.left(connection, alone).catch(leave)
    }
  }))
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
    if (lostAgainstAnother(error)) inside.lost = error
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
  // beside others it is a transaction like any other, so that it keeps out of the way of one that must be alone
  return inTurns() ? onOneConnection(() => work()) : tx(() => work())
}

/** @param work may say that the connection is broken, so that no one gets it again */
async function onOneConnection<T>(work: (visiting: Visit, leave: (broken: Error) => void) => Promise<T>): Promise<T> {
  if (!pool) throw new Error('The database is not open.')
  const connection = await pool.connect()
  const afterCommit: (() => void)[] = []
  let broken: Error | undefined
  let result: T
  try {
    const visiting: Visit = { database: databaseOn(connection), connection, afterCommit }
    result = await visit.run(visiting, () => work(visiting, error => broken = error))
  }
  finally {
    connection.release(broken)
  }
  for (const act of afterCommit) act()
  return result
}

/** What reading asks of a database. */
export type Reader = Pick<Database, 'select' | 'selectDistinct' | 'selectDistinctOn' | 'execute'>

/**
 * One statement that only reads. It needs no transaction, which would be two round trips more, and stands in nobody's way:
 * not even in that of one that must be alone. Inside of a `tx` it joins it.
 */
export async function read<T>(work: (database: Reader) => Promise<T>): Promise<T> {
  const inside = visit.getStore()
  return inside ? work(inside.database) : beside.until(() => work(opened(outside)))
}

/** The same for words of SQL. */
export const ask = <Row extends Record<string, unknown>>(question: SQL): Promise<{ rows: Row[] }> =>
  read(async database => await database.execute(question) as unknown as { rows: Row[] })

/** One statement that changes something; inside of a `tx` it joins it. */
export async function once<Row extends Record<string, unknown>>(statement: SQL): Promise<{ rows: Row[] }> {
  return byItself(async () => await (visit.getStore()?.database ?? opened(outside)).execute(statement) as unknown as { rows: Row[] })
}

/** The same for a statement whose words are put together already (`statement` and `question` make these). */
export async function runOne<Row extends Record<string, unknown>>(
  text: string,
  values: unknown[],
  changes: boolean,
): Promise<{ rows: Row[] }> {
  const run = () => (visit.getStore()?.connection ?? opened(pool)).query<Row>({ text, values })
  return changes ? byItself(run) : read(run)
}

/**
 * Statements around which there may be no transaction, such as those that make an index beside whoever writes: each by
 * itself, all on one connection, so that a lock which one of them takes is there for the next.
 */
export async function apart<T>(work: (database: Pick<Database, 'execute'>) => Promise<T>): Promise<T> {
  if (visit.getStore()) throw new Error('Already inside of a transaction.')
  const connection = await opened(pool).connect()
  try {
    return await work(databaseOn(connection))
  }
  finally {
    connection.release()
  }
}

/**
 * In turns one statement is a transaction by itself; beside others it goes through the door, and keeps out of the way of
 * one that must be alone.
 */
const byItself = <T>(run: () => Promise<T>): Promise<T> => visit.getStore() || inTurns() ? run() : tx(run)

function opened<T>(what: T | null): T {
  if (!what) throw new Error('The database is not open.')
  return what
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
