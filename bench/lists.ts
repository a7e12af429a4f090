import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { DEMO_PASSWORD, layDemo } from '../demo/lay'
import { startDatabase, type OpenDatabase } from '../server/db/start'
import { openSignIn, whoSignedIn, type SignedIn } from '../server/identity/sign-in'
import { findQuery } from '../server/records/find'
import { chosenBy, pageQueries } from '../server/records/list'
import { allStages } from '../server/records/stages'
import { fillPeople } from './people'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach, size } from './support'

/**
 * A filtered, sorted page among 100,000 people, by each column that can be sorted, and finding people,
 * over HTTP against the bare SQL of the same statements on the same database.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(100_000, 300))
const RUNS = size(12, 2)
const SORTS = ['name', 'company', 'stage', 'city', 'phone', 'owner', 'last-contact', 'tags', 'title', 'mail', 'made', 'own.budget']
const WORDS = ['iris', 'holm', 'marlow', '0142', 'zadie mac', 'bench 77', '555 01', 'quill']
const port = 4840

/** Of leads in three of their stages, not spoken with for a month. */
async function whereFor(): Promise<string> {
  const stages = (await allStages('lead')).slice(1, 4).map(({ id }) => id)
  return JSON.stringify({ match: 'all', of: [{ field: 'stage', test: 'one-of', value: stages }, { field: 'last-contact', test: 'not-for-days', value: 30 }] })
}

const listOf = (sort: string, where: string) => ({ module: 'lead' as const, sort, direction: 'down' as const, words: '', where })

async function bareTimes(database: OpenDatabase, ada: SignedIn, where: string): Promise<Map<string, number>> {
  const dialect = new PgDialect()
  const run = (statement: SQL) => {
    const { sql, params } = dialect.sqlToQuery(statement)
    return database.pool.query({ text: sql, values: params, name: '' })
  }
  await database.pool.query('set plan_cache_mode = force_custom_plan; set enable_seqscan = on')
  const times = new Map<string, number>()
  for (const sort of SORTS) {
    const { count, rows } = pageQueries(await chosenBy(ada, listOf(sort, where), new Date()), 1)
    times.set(sort, percentile(await timeEach(RUNS, async () => {
      await run(count)
      await run(rows)
    }), 0.95))
  }
  // as the use case has them looked up
  await database.pool.query('set enable_seqscan = off; set enable_hashjoin = off; set enable_mergejoin = off')
  times.set('find', percentile(await timeEach(RUNS * WORDS.length, i => run(findQuery(ada, WORDS[i % WORDS.length]!, 'US')!)), 0.95))
  return times
}

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
try {
  await layDemo(folder)
  const database = await startDatabase(folder)
  await fillPeople(database, PEOPLE)
  const ada = (await whoSignedIn((await openSignIn('ada@pannier.example', DEMO_PASSWORD, { address: 'bench' }, new Date())).signIn, new Date()))!
  const where = await whereFor()
  const bare = await bareTimes(database, ada, where)
  await database.close()
  const served = await serve(folder, port)
  for (const sort of SORTS) {
    const http = percentile(await timeEach(RUNS, () => served.get(`/api/records?${new URLSearchParams(listOf(sort, where)).toString()}`)), 0.95)
    console.log(`# list by ${sort}: ${http.toFixed(0)} ms over HTTP, ${bare.get(sort)!.toFixed(0)} ms bare`)
    figure(`list-by-${sort}/bare-sql`, http / bare.get(sort)!, '<=2', http <= 2 * bare.get(sort)!)
  }
  for (const words of WORDS) console.log(`# find “${words}”: ${percentile(await timeEach(RUNS, () => served.get(`/api/find?${new URLSearchParams({ words }).toString()}`)), 0.5).toFixed(0)} ms`)
  const found = percentile(await timeEach(RUNS * WORDS.length, i => served.get(`/api/find?${new URLSearchParams({ words: WORDS[i % WORDS.length]! }).toString()}`)), 0.95)
  console.log(`# find: ${found.toFixed(0)} ms over HTTP, ${bare.get('find')!.toFixed(0)} ms bare`)
  figure('find/bare-sql', found / bare.get('find')!, '<=3', found <= 3 * bare.get('find')!)
  await served.stop()
}
finally {
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
