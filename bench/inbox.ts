import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DEMO_PASSWORD } from '../demo/lay'
import { idAt } from '../demo/rows'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startDatabase, type OpenDatabase } from '../server/db/start'
import { openSignIn, whoSignedIn } from '../server/identity/sign-in'
import { INBOX_FILTERS } from '../shared/inbox'
import { load } from './load'
import { serve } from './served'
import { exitCode, figure, percentile, size, timeEach } from './support'
import { fillTexts } from './texts'

/**
 * The inbox: its first page, plain and by each filter, over HTTP, against the same page read through indexes with nothing around it
 * (those that wait and the newest others of a line, each with its newest text and call, and whom it is with; no rights, no
 * filters, nobody's own marks), and against itself with 1,000 texts. So is the shelf, whose number must not grow with what was ever said.
 */
const RUNS = size(200, 5)
const TEXTS = Number(process.env.BENCH_ENTRIES ?? size(1_000_000, 2_000))
const TEXTS_EACH = 20
/** As many wait as in a bad week, whatever else there is. */
const OWED = 40
const port = 4820

const bareSql = (which: string) => `
  select v.*, newest.*, rung.*, who.* from (select * from conversation where ${which}) v
    left join lateral (select m.direction, t.words from message m left join activity_content t on t.activity_id = m.activity_id
      where m.conversation_id = v.id order by m.made_at desc limit 1) newest on true
    left join lateral (select k.made_at, k.direction from call k where k.remote = v.remote and k.line_id = v.line_id
      order by k.made_at desc limit 1) rung on true
    left join lateral (select r.id, r.name from phone p join record r on r.id = p.record_id where p.e164 = v.remote limit 1) who on true`

interface Times { bare: number, shelf: number, pages: Record<string, number> }

async function fill(database: OpenDatabase, texts: number): Promise<string> {
  const { rows: [own] } = await database.pool.query<{ owner: string, team: string, line: string }>(
    `select c.id as owner, m.team_id as team, (select id from line where private = false order by name limit 1) as line
      from colleague c join team_member m on m.colleague_id = c.id where c.mail = 'ada@pannier.example'`)
  const now = Date.now()
  const people = Array.from({ length: Math.max(OWED, Math.round(texts / TEXTS_EACH)) }, (_, i) =>
    ({ id: idAt(new Date(now)), e164: `+1998${String(i).padStart(7, '0')}` }))
  const made = new Date(now).toISOString()
  const inPieces = async (into: string, lines: string[]) => {
    for (let start = 0; start < lines.length; start += 20_000) await load(database, into, lines.slice(start, start + 20_000))
  }
  await inPieces('record (id, module, name, owner_id, team_id, made_at)',
    people.map(({ id }, i) => `${id},lead,Bench ${i},${own!.owner},${own!.team},${made}`))
  await inPieces('phone (id, record_id, position, label, typed, e164, kind, country)',
    people.map(({ id, e164 }) => `${idAt(new Date(now))},${id},0,mobile,${e164},${e164},mobile,US`))
  await fillTexts(database, people, texts, TEXTS_EACH)
  await database.pool.query(
    `update conversation set waits_since = now() - interval '1 hour', waits_for = 'text'
      where id in (select id from conversation where remote like '+1998%' order by remote limit ${OWED})`)
  await database.pool.query(
    `update conversation v set last_at = x.at from (select conversation_id, max(made_at) as at from message group by 1) x where x.conversation_id = v.id`)
  await database.pool.query('vacuum analyze')
  return own!.line
}

async function measure(texts: number): Promise<Times> {
  const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
  try {
    await copyDemo(folder)
    const database = await startDatabase(folder)
    const line = await fill(database, texts)
    await whoSignedIn((await openSignIn({ mail: 'ada@pannier.example', password: DEMO_PASSWORD, code: '' }, { address: 'bench' }, new Date())).signIn, new Date())
    const bare = percentile(await timeEach(RUNS, async () => {
      await database.pool.query(bareSql(`line_id = $1 and waits_since is null order by last_at desc, id desc limit 41`), [line])
      await database.pool.query(bareSql(`line_id = $1 and waits_since is not null order by waits_since limit 200`), [line])
    }), 0.95)
    await database.close()
    const served = await serve(folder, port)
    try {
      const time = async (path: string) => percentile(await timeEach(RUNS, () => served.get(path)), 0.95)
      // a process that has just started is slow for a while, whatever it does
      await time('/api/inbox')
      const pages: Record<string, number> = { all: await time('/api/inbox') }
      for (const filter of INBOX_FILTERS) pages[filter] = await time(`/api/inbox?show=${filter}`)
      return { bare, shelf: await time('/api/shelf'), pages }
    }
    finally {
      await served.stop()
    }
  }
  finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

const small = await measure(1_000)
const large = await measure(TEXTS)
console.log(`# bare: ${large.bare.toFixed(1)} ms; with 1,000 texts ${small.bare.toFixed(1)} ms`)
for (const [filter, ms] of Object.entries(large.pages)) {
  console.log(`# inbox, ${filter}: ${ms.toFixed(1)} ms; with 1,000 texts ${small.pages[filter]!.toFixed(1)} ms`)
  figure(`inbox-${filter}/bare-sql`, ms / large.bare, '<=3', ms <= 3 * large.bare)
  figure(`inbox-${filter}-${TEXTS}/1000`, ms / small.pages[filter]!, '<=1.5', ms <= 1.5 * small.pages[filter]!)
}
console.log(`# shelf: ${large.shelf.toFixed(1)} ms; with 1,000 texts ${small.shelf.toFixed(1)} ms`)
figure(`shelf-${TEXTS}/1000`, large.shelf / small.shelf, '<=1.5', large.shelf <= 1.5 * small.shelf)
process.exit(exitCode())
