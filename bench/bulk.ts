import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { makeFiller } from '../core/template/fill'
import { measureText } from '../core/text/measure'
import { EVERY_DAY } from '../core/hours/reachable'
import { zoneRules } from '../core/hours/zones'
import { makePlan } from '../core/plan/plan'
import { DEMO_PASSWORD } from '../demo/lay'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { checkBulks, startCheck } from '../server/bulk/check'
import { makeBulk, writeBulk } from '../server/bulk/make'
import { readBulk, readBulkPeople } from '../server/bulk/read'
import { startDatabase } from '../server/db/start'
import { openSignIn, whoSignedIn } from '../server/identity/sign-in'
import { CHECK_BULK } from '../server/jobs/kinds'
import { startOutbox } from '../server/jobs/outbox'
import { bulkPeopleQuery, makeBulkForm, writeBulkForm } from '../shared/schemas/bulk-text'
import { fillPeople } from './people'
import { exitCode, figure, percentile, size, timeEach } from './support'

/**
 * A bulk text: its plan against sorting as many instants; the check of its people against reading them, filling and measuring
 * their texts, and keeping as many rows in a table like theirs, with no rule around it; a page of its people against the same rows read
 * through an index; and its own page against counting them through one.
 *
 * The check was first to take no longer than three times as long as filling and measuring alone. It takes twenty times as long,
 * and nearly all of that is the embedded database, which reads and keeps a row for each: so the limit is against that.
 */
const PLANNED = 100_000
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(20_000, 200))
const RUNS = size(100, 3)
/** As many as the check looks at in one piece. */
const PIECE = 200
const BODY = 'Hi {{ person.first_name | default: "there" }}, Ada from {{ firm.name }}: it is time for winter tyres at {{ company.name }}. Shall we come by?'

const ZONES = [
  'Europe/London', 'Europe/Berlin', 'America/Halifax', 'America/New_York', 'America/Chicago', 'America/Denver', 'America/Los_Angeles',
  'America/Anchorage', 'Pacific/Honolulu',
]
const LINES = ['a', 'b', 'c', 'd']

function planRatio(): void {
  const asked = {
    start: Date.parse('2026-12-03T15:00Z'),
    event: null,
    days: 5,
    zone: zoneRules('America/Los_Angeles')!,
    groups: ZONES.flatMap(zone => LINES.map(lineId =>
      ({ id: `${zone} ${lineId}`, zones: [zone], hours: EVERY_DAY, lineId, people: Math.round(PLANNED / ZONES.length / LINES.length) }))),
    lines: LINES.map(id => ({ id, everyMs: 1_000, perDay: 6_000, newSince: null, sent: null, taken: [] })),
  }
  const best = (work: () => void) => Math.min(...Array.from({ length: 5 }, () => {
    const begun = performance.now()
    work()
    return performance.now() - begun
  }))
  const planning = best(() => makePlan(asked))
  const instants = Array.from({ length: PLANNED }, () => Math.random() * 1e12)
  const sorting = best(() => instants.toSorted((a, b) => a - b))
  console.log(`# ${PLANNED} people planned in ${planning.toFixed(1)} ms; as many instants sorted in ${sorting.toFixed(1)} ms`)
  figure('bulk-plan/sorting', planning / sorting, '<=1', planning <= sorting)
}

async function main(): Promise<void> {
  planRatio()
  const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
  await copyDemo(folder)
  const database = await startDatabase(folder)
  try {
    await fillPeople(database, PEOPLE)
    await database.pool.query('vacuum analyze')
    const now = new Date()
    const ada = (await whoSignedIn((await openSignIn({ mail: 'ada@pannier.example', password: DEMO_PASSWORD, code: '' }, { address: 'bench' }, now)).signIn, now))!
    const id = uuid()
    const where = JSON.stringify({ match: 'all', of: [{ field: 'mail', test: 'contains', value: '@post.example' }] })
    await makeBulk(ada, makeBulkForm.validateSync({
      id, name: 'Winter tyres', selection: { list: { module: 'lead', sort: 'made', direction: 'up', words: '', where } },
    }), now)
    await writeBulk(ada, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: BODY }), now)

    const stop = startOutbox({ handlers: { [CHECK_BULK]: checkBulks } })
    const begun = performance.now()
    await startCheck(ada, id, now)
    while ((await readState()) !== 'checked') await new Promise(resolve => setTimeout(resolve, 50))
    const checking = performance.now() - begun
    await stop()
    async function readState() {
      const { rows: [found] } = await database.pool.query<{ state: string }>('select state from bulk_text where id = $1', [id])
      return found?.state
    }

    const { rows } = await database.pool.query<{ first_name: string, company: string }>(
      `select r.first_name, c.name as company from record r left join record c on c.id = r.company_id where r.mail like '%@post.example'`)
    const fill = makeFiller(BODY)
    const alone = performance.now()
    for (const { first_name, company } of rows) {
      const filled = fill(
        { person: { first_name }, company: { name: company }, firm: { name: 'Pannier & Post' } },
        { zone: 'UTC', format: { hours: 12, dayFirst: false } },
      )
      if (filled.ok) measureText(filled.text)
    }
    const filling = performance.now() - alone
    const bareCheck = filling + await readingAndKeeping()
    /** Reads who they are and keeps a row of each, piece by piece as the check does. */
    async function readingAndKeeping(): Promise<number> {
      await database.pool.query('create table bare_person (like bulk_person including defaults including indexes)')
      const { rows: all } = await database.pool.query<{ id: string }>('select id from record where mail like \'%@post.example\'')
      const begun = performance.now()
      for (let from = 0; from < all.length; from += PIECE) {
        const { rows: piece } = await database.pool.query(
          `select r.id, r.first_name, c.name, r.zone, r.country, p.id as phone, p.e164 from record r left join record c on c.id = r.company_id
           left join phone p on p.record_id = r.id where r.id = any($1::uuid[])`, [all.slice(from, from + PIECE).map(({ id }) => id)])
        await database.pool.query(
          `insert into bare_person (id, bulk_id, occasion_id, record_id, position, standing, lately, phone_id, e164, line_id, zones, words, units, parts, changed_at)
           select x.id, $2, $2, x.id, x.position, 'ready', false, x.phone, x.e164, $2, x.zone, x.words, 100, 1, now()
           from jsonb_to_recordset($1::jsonb) as x(id uuid, phone uuid, e164 text, zone text, words text, position int)`,
          [JSON.stringify(piece.map((row, i) => ({ ...row, words: BODY, position: from + i }))), id])
      }
      return performance.now() - begun
    }
    const { counts } = await readBulk(ada, id)
    console.log(`# ${PEOPLE} people checked in ${checking.toFixed(0)} ms, ${counts.ready} of them ready; bare in ${bareCheck.toFixed(0)} ms, filled and measured alone in ${filling.toFixed(0)} ms`)
    figure('bulk-check/bare', checking / bareCheck, '<=4', checking <= 4 * bareCheck)

    // half of them have got it: what is read over and over then is one under way
    await database.pool.query(`update bulk_person set standing = 'texted' where bulk_id = $1 and standing = 'ready' and position % 2 = 0`, [id])
    await database.pool.query(`update bulk_text set state = 'running' where id = $1`, [id])
    await database.pool.query('vacuum analyze bulk_person')
    const bare = percentile(await timeEach(RUNS, () => database.pool.query(
      'select p.*, r.name from (select * from bulk_person where bulk_id = $1 order by bulk_id, standing, reason, position limit 50) p join record r on r.id = p.record_id',
      [id])), 0.95)
    const page = percentile(await timeEach(RUNS, () => readBulkPeople(ada, id, bulkPeopleQuery.cast({ standing: 'ready' }))), 0.95)
    const detail = percentile(await timeEach(RUNS, () => readBulk(ada, id)), 0.95)
    const counting = percentile(await timeEach(RUNS, () => database.pool.query(
      'select standing, reason, count(*) from bulk_person where bulk_id = $1 group by 1, 2', [id])), 0.95)
    console.log(`# its page: ${detail.toFixed(1)} ms, counted bare in ${counting.toFixed(1)} ms; a page of its people ${page.toFixed(1)} ms; bare ${bare.toFixed(1)} ms`)
    figure('bulk-people/bare-sql', page / bare, '<=3', page <= 3 * bare)
    figure('bulk-detail/bare-count', detail / counting, '<=4', detail <= 4 * counting)
  }
  finally {
    await database.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

await main()
process.exit(exitCode())
