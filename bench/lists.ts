import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { DEMO_PASSWORD, layDemo } from '../demo/lay'
import { FIRST_NAMES, LAST_NAMES } from '../demo/names'
import { idAt } from '../demo/rows'
import { startDatabase } from '../server/db/start'
import { openSignIn, whoSignedIn, type SignedIn } from '../server/identity/sign-in'
import { findQuery } from '../server/records/find'
import { chosenBy, pageQueries } from '../server/records/list'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach } from './support'

/**
 * A filtered, sorted page among 100,000 people, by each column that can be sorted, and finding people,
 * over HTTP against the bare SQL of the same statements on the same database.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? 100_000)
const RUNS = 12
const SORTS = ['name', 'company', 'stage', 'city', 'phone', 'owner', 'last-contact', 'tags', 'title', 'mail', 'made', 'own.budget']
const WHERE = JSON.stringify({ match: 'all', of: [{ field: 'stage', test: 'one-of', value: ['Talking', 'Trial', 'Offer'] }, { field: 'last-contact', test: 'not-for-days', value: 30 }] })
const WORDS = ['iris', 'holm', 'marlow', '0142', 'zadie mac', 'bench 77', '555 01', 'quill']
const port = 4840

type Database = Awaited<ReturnType<typeof startDatabase>>

/** People with a number each, loaded by COPY. */
async function fill(database: Database): Promise<void> {
  const { rows: [own] } = await database.pool.query('select c.id as owner, m.team_id as team from colleague c join team_member m on m.colleague_id = c.id where c.email = $1', ['ada@pannier.example'])
  const { rows: companies } = await database.pool.query<{ id: string }>('select id from record where module = \'company\'')
  const now = Date.now()
  const chunk = 10_000
  for (let start = 0; start < PEOPLE; start += chunk) {
    const people = Array.from({ length: Math.min(chunk, PEOPLE - start) }, (_, i) => {
      const n = start + i
      const [first, last] = [FIRST_NAMES[n % FIRST_NAMES.length]!, LAST_NAMES[(n * 7) % LAST_NAMES.length]!]
      return { id: idAt(new Date(now - n * 1_000)), n, first, last, madeAt: new Date(now - n * 60_000).toISOString(), contact: n % 5 === 0 ? '' : new Date(now - (n % 400) * 86_400_000).toISOString() }
    })
    await database.copyFrom('copy record (id, module, name, first_name, last_name, title, owner_id, team_id, company_id, stage, city, mail, tags, fields, last_contact_at, made_at) from \'/dev/blob\' csv', people.map(({ id, n, first, last, madeAt, contact }) =>
      `${id},lead,${first} ${last} ${n},${first},${last} ${n},owner,${own.owner},${own.team},${companies[n % companies.length]!.id},${['New', 'Talking', 'Trial', 'Offer', 'Leased'][n % 5]},${['Portland', 'Halifax', 'Bristol', 'Hilo', ''][n % 5]},bench${n}@post.example,{bakery},"{""budget"": ${n % 900}}",${contact},${madeAt}`).join('\n'))
    await database.copyFrom('copy phone (id, record_id, position, label, typed, e164, country, kind) from \'/dev/blob\' csv', people.map(({ id, n, madeAt }) =>
      `${idAt(new Date(madeAt))},${id},0,mobile,+1999${String(n).padStart(7, '0')},+1999${String(n).padStart(7, '0')},US,mobile`).join('\n'))
  }
  await database.pool.query('vacuum analyze')
  await database.pool.query('checkpoint')
}

const listOf = (sort: string) => ({ module: 'lead' as const, sort, direction: 'down' as const, words: '', where: WHERE })

async function bareTimes(database: Database, ada: SignedIn): Promise<Map<string, number>> {
  const dialect = new PgDialect()
  const run = (statement: SQL) => {
    const { sql, params } = dialect.sqlToQuery(statement)
    return database.pool.query({ text: sql, values: params, name: '' })
  }
  await database.pool.query('set plan_cache_mode = force_custom_plan; set enable_seqscan = on')
  const times = new Map<string, number>()
  for (const sort of SORTS) {
    const { count, rows } = pageQueries(await chosenBy(ada, listOf(sort), new Date()), 1)
    times.set(sort, percentile(await timeEach(RUNS, async () => {
      await run(count)
      await run(rows)
    }), 0.95))
  }
  times.set('find', percentile(await timeEach(RUNS * WORDS.length, i => run(findQuery(ada, WORDS[i % WORDS.length]!, 'US')!)), 0.95))
  return times
}

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
try {
  await layDemo(folder, false)
  const database = await startDatabase(folder)
  await fill(database)
  const ada = (await whoSignedIn(await openSignIn('ada@pannier.example', DEMO_PASSWORD, 'bench', new Date()), new Date()))!
  const bare = await bareTimes(database, ada)
  await database.close()
  const served = await serve(folder, port)
  for (const sort of SORTS) {
    const http = percentile(await timeEach(RUNS, () => served.get(`/api/records?${new URLSearchParams(listOf(sort)).toString()}`)), 0.95)
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
