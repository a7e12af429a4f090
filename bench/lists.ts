import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql, type SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { v7 as uuid } from 'uuid'
import { DEMO_PASSWORD } from '../demo/lay'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { record } from '../server/db/schema'
import { startDatabase, type OpenDatabase } from '../server/db/start'
import { openSignIn, whoSignedIn, type SignedIn } from '../server/identity/sign-in'
import { seesRecord } from '../server/reading/visible'
import { findQuery } from '../server/records/find'
import { rowsFor } from '../server/records/rows'
import { allStages } from '../server/records/stages'
import { saveView } from '../server/records/views'
import { columnsOf } from '../shared/columns'
import { fillPeople } from './people'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach, size } from './support'

/**
 * A filtered, sorted page among 100,000 people over HTTP, by each column and by an own field that a kept list is sorted by,
 * against the page of all people by their name, which is read through one index: what a page must cost at least; and the
 * latter bare, beside it. And finding people, against the bare SQL of the same statement. All on the same database.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(100_000, 300))
const RUNS = size(40, 2)
const FINDS = size(12, 2)
const KEPT = 'own.budget'
const SORTS = [...columnsOf('lead', []).map(({ key }) => key), KEPT]
const WORDS = ['iris', 'holm', 'marlow', '0142', 'zadie mac', 'bench 77', '555 01', 'quill']
const port = 4840

/** Of leads in three of their stages, not spoken with for a month. */
async function whereFor(): Promise<string> {
  const stages = (await allStages('lead')).slice(1, 4).map(({ id }) => id)
  return JSON.stringify({
    match: 'all',
    of: [
      { field: 'stage', test: 'one-of', value: stages },
      { field: 'last-contact', test: 'not-for-days', value: 30 },
    ],
  })
}

const listOf = (sort: string, where: string, direction: 'up' | 'down' = 'down') => ({
  module: 'lead' as const,
  sort,
  direction,
  words: '',
  where,
})

interface Bare { page: number, find: number }

async function bareTimes(database: OpenDatabase, ada: SignedIn): Promise<Bare> {
  const dialect = new PgDialect()
  const run = (statement: SQL) => {
    const { sql: text, params } = dialect.sqlToQuery(statement)
    return database.pool.query({ text, values: params })
  }
  const mine = seesRecord(ada, 'n')
  const page = sql`
    ${rowsFor(ada, sql`(
      select n.id, row_number() over (order by n.name collate "und-x-icu", n.id) as place from ${record} n where n.module = 'lead'
        and ${mine}
      order by n.name collate "und-x-icu", n.id limit 50) chosen`)}`
  return {
    page: percentile(await timeEach(RUNS * 2, () => run(page)), 0.95),
    find: percentile(await timeEach(FINDS * WORDS.length, i => run(findQuery(ada, WORDS[i % WORDS.length]!, 'US')!)), 0.95),
  }
}

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
try {
  await copyDemo(folder)
  const database = await startDatabase(folder)
  await fillPeople(database, PEOPLE)
  const ada = (await whoSignedIn(
    (await openSignIn({ mail: 'ada@pannier.example', password: DEMO_PASSWORD, code: '' }, { address: 'bench' }, new Date())).signIn,
    new Date(),
  ))!
  await saveView(
    ada,
    { id: uuid(), module: 'lead', name: 'By budget', columns: ['name'], sort: KEPT, direction: 'down', shared: false, where: '' },
    new Date(),
  )
  const where = await whereFor()
  const bare = await bareTimes(database, ada)
  await database.close()
  const served = await serve(folder, port)
  const paged = (query: object) => served.get(`/api/records?${new URLSearchParams(query as Record<string, string>).toString()}`)
  const byIndex = () => paged(listOf('name', '', 'up'))
  console.log(`# one page through an index, bare: ${bare.page.toFixed(1)} ms`)
  for (const sort of SORTS) {
    for (const direction of ['down', 'up'] as const) {
      // one after the other, so that both have the same machine
      const [asked, simple]: [number[], number[]] = [[], []]
      for (let run = 0; run < RUNS; run++) {
        simple.push(...await timeEach(1, byIndex))
        asked.push(...await timeEach(1, () => paged(listOf(sort, where, direction))))
      }
      const [page, through] = [percentile(asked, 0.95), percentile(simple, 0.95)]
      console.log(`# list by ${sort}, ${direction}: ${page.toFixed(1)} ms; one page through an index: ${through.toFixed(1)} ms`)
      figure(`list-by-${sort}-${direction}/page-by-index`, page / through, '<=3', page <= 3 * through)
    }
  }
  const counting = percentile(
    await timeEach(RUNS, () => served.get(`/api/records/count?${new URLSearchParams(listOf('name', where)).toString()}`)),
    0.95,
  )
  console.log(`# counting, apart: ${counting.toFixed(0)} ms`)
  for (const words of WORDS)
    console.log(
      `# find “${words}”: ${percentile(await timeEach(FINDS, () => served.get(`/api/find?${new URLSearchParams({ words }).toString()}`)), 0.5).toFixed(0)} ms`,
    )
  const found = percentile(
    await timeEach(FINDS * WORDS.length, i =>
      served.get(`/api/find?${new URLSearchParams({ words: WORDS[i % WORDS.length]! }).toString()}`),
    ),
    0.95,
  )
  console.log(`# find: ${found.toFixed(0)} ms over HTTP, ${bare.find.toFixed(0)} ms bare`)
  figure('find/bare-sql', found / bare.find, '<=3', found <= 3 * bare.find)
  await served.stop()
}
finally {
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
