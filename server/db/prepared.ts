import { createHash } from 'node:crypto'
import type pg from 'pg'

/** Planning costs more than running for statements as small as ours; more names than this would be a leak. */
const MOST_NAMES = 400

/** Statements longer than this are bulk writes of one shape each. */
const LONGEST = 8_000

let connections = 0

/**
 * Lets a connection plan each statement once: every text gets a name, by which the database knows it
 * again, and its plan is kept whatever the values. Ours look things up by key, so one plan fits all;
 * planning them anew took three times as long as running them.
 */
export async function prepareStatements(client: pg.ClientBase): Promise<void> {
  // connections to the embedded database share a session, and so their names must differ
  const connection = ++connections
  // a kept plan outlives the size that its tables had when it was made: one that reads a small table whole would go on doing so;
  // a server takes the price that this puts on reading one whole for work, and would compile the simplest statement first;
  // calling further processes in for one of ours takes longer than it does
  await client.query('set plan_cache_mode = force_generic_plan; set enable_seqscan = off; set jit = off; set max_parallel_workers_per_gather = 0')
  const names = new Map<string, string>()
  const nameOf = (text: string) => {
    const known = names.get(text)
    if (known || names.size >= MOST_NAMES || text.length > LONGEST) return known
    const name = `${connection}-${createHash('md5').update(text).digest('hex')}`
    names.set(text, name)
    return name
  }
  const query = client.query.bind(client) as (...args: unknown[]) => unknown
  client.query = ((statement: string | { text: string, name?: string }, ...rest: unknown[]) => {
    if (typeof statement === 'object' && statement.text && !statement.name) return query({ ...statement, name: nameOf(statement.text) }, ...rest)
    return query(statement, ...rest)
  }) as typeof client.query
}
