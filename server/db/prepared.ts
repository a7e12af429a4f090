import { createHash } from 'node:crypto'
import { sql, type SQL } from 'drizzle-orm'
import type pg from 'pg'

/** More names than this would be a leak. */
const MOST_NAMES = 400

/** Statements longer than this are bulk writes of one shape each. */
const LONGEST = 8_000

let connections = 0

const OWN_PLAN = '/* its own plan */ '

/**
 * A statement that is planned anew with its values: for what people put together themselves, such as a list with
 * conditions, where a plan that fits all values would fit none.
 */
export const planned = (statement: SQL): SQL => sql`${sql.raw(OWN_PLAN)}${statement}`

/**
 * Lets a connection parse each statement once, and plan it once where one plan serves for all values: every text gets a
 * name, by which the database knows it again. Planning those anew took three times as long as running them.
 */
export async function prepareStatements(client: pg.ClientBase): Promise<void> {
  // connections to the embedded database share a session, and so their names must differ
  const connection = ++connections
  // compiling one of ours, or calling further processes in for it, takes longer than running it
  await client.query('set jit = off; set max_parallel_workers_per_gather = 0')
  const names = new Map<string, string>()
  const nameOf = (text: string) => {
    const known = names.get(text)
    if (text.startsWith(OWN_PLAN)) return undefined
    if (known || names.size >= MOST_NAMES || text.length > LONGEST) return known
    const name = `${connection}-${createHash('md5').update(text).digest('hex')}`
    names.set(text, name)
    return name
  }
  const query = client.query.bind(client) as (...args: unknown[]) => unknown
  client.query = ((statement: string | { text: string, name?: string }, ...rest: unknown[]) => {
    if (typeof statement === 'object' && statement.text && !statement.name)
      return query({ ...statement, name: nameOf(statement.text) }, ...rest)
    return query(statement, ...rest)
  }) as typeof client.query
}
