import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { DEMO_PASSWORD } from '../demo/lay'
import { idAt } from '../demo/rows'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startDatabase, type OpenDatabase } from '../server/db/start'
import { whoSignedIn, openSignIn } from '../server/identity/sign-in'
import { PAGE, timelineQuery } from '../server/timeline/read'
import { load } from './load'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach, size } from './support'
import { fillTexts } from './texts'

/**
 * A record's timeline, first page of 50, random records, visibility included, over HTTP, against the bare
 * SQL of the same query on the same database, and against itself with 1,000 entries.
 */
const RUNS = size(400, 5)
const ENTRIES_A_RECORD = 200
const port = 4810

async function measure(entries: number): Promise<{ bare: number, http: number }> {
  const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
  try {
    await copyDemo(folder)
    const database = await startDatabase(folder)
    const records = await fill(database, entries)
    const ada = await whoSignedIn(
      (await openSignIn({ mail: 'ada@pannier.example', password: DEMO_PASSWORD, code: '' }, { address: 'bench' }, new Date())).signIn,
      new Date(),
    )
    const pick = (run: number) => records[(run * 7_919) % records.length]!
    const dialect = new PgDialect()
    const bare = await timeEach(RUNS, (run) => {
      const query = dialect.sqlToQuery(timelineQuery(ada!, pick(run), sql`true`, PAGE + 1))
      return database.pool.query(query.sql, query.params)
    })
    await database.close()
    const http = await overHttp(folder, pick)
    return { bare: percentile(bare, 0.95), http: percentile(http, 0.95) }
  }
  finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Texts of a year on leads of their own. */
async function fill(database: OpenDatabase, entries: number): Promise<string[]> {
  const {
    rows: [own],
  } = await database.pool.query(
    'select c.id as owner, m.team_id as team from colleague c join team_member m on m.colleague_id = c.id where c.mail = $1',
    ['ada@pannier.example'],
  )
  const now = Date.now()
  const leads = Array.from({ length: Math.max(1, Math.round(entries / ENTRIES_A_RECORD)) }, (_, i) => ({
    id: idAt(new Date(now)),
    e164: `+1999${String(i).padStart(7, '0')}`,
  }))
  await load(
    database,
    'record (id, module, name, owner_id, team_id, made_at)',
    leads.map(({ id }, i) => `${id},lead,Bench ${i},${own.owner},${own.team},${new Date(now).toISOString()}`),
  )
  await fillTexts(database, leads, entries, ENTRIES_A_RECORD)
  return leads.map(({ id }) => id)
}

async function overHttp(folder: string, pick: (run: number) => string): Promise<number[]> {
  const served = await serve(folder, port)
  try {
    return await timeEach(RUNS, async (run) => {
      const page = await served.get(`/api/records/${pick(run)}/timeline`) as { entries: unknown[] }
      if (page.entries.length !== PAGE) throw new Error(`A page of ${page.entries.length} entries.`)
    })
  }
  finally {
    await served.stop()
  }
}

const small = await measure(1_000)
const large = await measure(Number(process.env.BENCH_ENTRIES ?? size(1_000_000, 2_000)))
console.log(
  `# timeline p95: ${large.http.toFixed(2)} ms over HTTP, ${large.bare.toFixed(2)} ms bare; with 1,000 entries ${small.http.toFixed(2)} ms and ${small.bare.toFixed(2)} ms`,
)
figure('timeline-http/bare-sql', large.http / large.bare, '<=2', large.http / large.bare <= 2)
figure('timeline-1000000/1000', large.http / small.http, '<=1.5', large.http / small.http <= 1.5)
process.exit(exitCode())
