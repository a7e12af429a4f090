import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { layDemo, DEMO_PASSWORD } from '../demo/lay'
import { idAt } from '../demo/rows'
import { startDatabase } from '../server/db/start'
import { whoSignedIn, openSignIn } from '../server/identity/sign-in'
import { PAGE, timelineQuery } from '../server/timeline/read'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach } from './support'

/**
 * A record's timeline, first page of 50, random records, visibility included, over HTTP, against the bare
 * SQL of the same query on the same database, and against itself with 1,000 entries.
 */
const RUNS = 400
const ENTRIES_A_RECORD = 200
const port = 4810

async function measure(entries: number): Promise<{ bare: number, http: number }> {
  const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
  try {
    await layDemo(folder, false)
    const database = await startDatabase(folder)
    const records = await fill(database, entries)
    const ada = await whoSignedIn(await openSignIn('ada@pannier.example', DEMO_PASSWORD, 'bench', new Date()), new Date())
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

/** Texts of a year on leads of their own, loaded by COPY. */
async function fill(database: Awaited<ReturnType<typeof startDatabase>>, entries: number): Promise<string[]> {
  const { rows: [own] } = await database.pool.query('select c.id as owner, m.team_id as team, (select id from line where private = false order by name limit 1) as line from colleague c join team_member m on m.colleague_id = c.id where c.email = $1', ['ada@pannier.example'])
  const now = Date.now()
  const records = Array.from({ length: Math.max(1, Math.round(entries / ENTRIES_A_RECORD)) }, () => idAt(new Date(now)))
  await database.copyFrom('copy record (id, module, name, owner_id, team_id, made_at) from \'/dev/blob\' csv', records.map((id, i) => `${id},lead,Bench ${i},${own.owner},${own.team},${new Date(now).toISOString()}`).join('\n'))
  const conversations = records.map((_, i) => ({ id: idAt(new Date(now)), other: `+1999${String(i).padStart(7, '0')}` }))
  await database.copyFrom('copy conversation (id, line_id, other, last_at) from \'/dev/blob\' csv', conversations.map(({ id, other }) => `${id},${own.line},${other},${new Date(now).toISOString()}`).join('\n'))
  const chunk = 20_000
  for (let start = 0; start < entries; start += chunk) {
    const rows = Array.from({ length: Math.min(chunk, entries - start) }, (_, i) => {
      const n = start + i
      const at = new Date(now - (n % ENTRIES_A_RECORD) * 86_400_000 * 1.7 - n)
      return { at: at.toISOString(), activity: idAt(at), message: idAt(at), record: records[n % records.length], conversation: conversations[n % records.length]!.id, ours: n % 3 > 0 }
    })
    await database.copyFrom('copy activity (id, at, kind, colleague_id, message_id) from \'/dev/blob\' csv', rows.map(row => `${row.activity},${row.at},${row.ours ? 'text-out' : 'text-in'},${row.ours ? own.owner : ''},${row.message}`).join('\n'))
    await database.copyFrom('copy activity_content (activity_id, words) from \'/dev/blob\' csv', rows.map(row => `${row.activity},"Hi, the mechanic comes on Thursday before 11 to see to the racks."`).join('\n'))
    await database.copyFrom('copy activity_on_record (record_id, at, activity_id) from \'/dev/blob\' csv', rows.map(row => `${row.record},${row.at},${row.activity}`).join('\n'))
    await database.copyFrom('copy message (id, conversation_id, activity_id, direction, state, encoding, units, parts, made_at, leaves_at) from \'/dev/blob\' csv', rows.map(row => `${row.message},${row.conversation},${row.activity},${row.ours ? 'out' : 'in'},${row.ours ? 'delivered' : 'received'},GSM-7,64,1,${row.at},${row.at}`).join('\n'))
  }
  await database.pool.query('vacuum analyze')
  await database.pool.query('checkpoint')
  return records
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
const large = await measure(Number(process.env.BENCH_ENTRIES ?? 1_000_000))
console.log(`# timeline p95: ${large.http.toFixed(2)} ms over HTTP, ${large.bare.toFixed(2)} ms bare; with 1,000 entries ${small.http.toFixed(2)} ms and ${small.bare.toFixed(2)} ms`)
figure('timeline-http/bare-sql', large.http / large.bare, '<=2', large.http / large.bare <= 2)
figure('timeline-1000000/1000', large.http / small.http, '<=1.5', large.http / small.http <= 1.5)
process.exit(exitCode())
