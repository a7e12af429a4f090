import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { FIRST_NAMES, LAST_NAMES } from '../demo/names'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { once, tx } from '../server/db/door'
import { insertAll } from '../server/db/insert-all'
import { activityOnRecord, importSeen, phone, record } from '../server/db/schema'
import { startDatabase } from '../server/db/start'
import { PIECE_ROWS, type ImportProgress } from '../shared/import'
import type { RecordPage } from '../shared/record'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach, size } from './support'

/**
 * A file of 100,000 people brought in over HTTP: how many a second while nobody else is there, what a colleague
 * waits for a timeline meanwhile, and how it compares with the bare inserts of as many rows into the same tables.
 */
const ROWS = Number(process.env.BENCH_ROWS ?? size(100_000, 200))
const FIRMS = size(2_000, 20)
const RUNS = size(200, 5)
const port = 4850
const pause = (milliseconds: number) => new Promise(resolve => setTimeout(resolve, milliseconds))
const HEADINGS = ['First name', 'Last name', 'Mobile', 'Mail', 'Company', 'City', 'Tags']

const row = (n: number) => [
  FIRST_NAMES[n % FIRST_NAMES.length]!,
  `${LAST_NAMES[(n * 7) % LAST_NAMES.length]!} ${n}`,
  `+1 ${[415, 510, 650][n % 3]} ${200 + (Math.floor(n / 10_000) % 700)} ${String(n % 10_000).padStart(4, '0')}`,
  `import${n}@post.example`,
  `Firm ${n % FIRMS}`,
  'Hilo',
  'fair',
]

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
try {
  await copyDemo(folder)
  const served = await serve(folder, port)
  const me = await served.get('/api/me') as { id: string }
  const {
    rows: [iris],
  } = (await served.get(`/api/records?${new URLSearchParams({ module: 'lead', words: 'Iris Holm' }).toString()}`)) as RecordPage
  const timeline = () => served.get(`/api/records/${iris!.id}/timeline`)
  const usual = percentile(await timeEach(RUNS, timeline), 0.95)

  const id = uuid()
  const rules = {
    matching: ['first-name', 'last-name', 'phone', 'mail', 'company', 'city', 'tags'],
    country: 'US',
    dayOrders: HEADINGS.map(() => null),
    duplicates: { number: 'keep-both', mail: 'join', name: 'join' },
    ownerId: me.id,
  }
  await served.send('POST', '/api/imports', { id, module: 'lead', fileName: 'bench.csv', headings: HEADINGS, total: ROWS, rules })
  const sent = performance.now()
  for (let start = 0; start < ROWS; start += 40 * PIECE_ROWS)
    await served.send('PUT', `/api/imports/${id}/rows`, {
      place: start / PIECE_ROWS,
      rows: Array.from({ length: Math.min(40 * PIECE_ROWS, ROWS - start) }, (_, i) => row(start + i)),
    })
  console.log(`# ${ROWS} rows sent in ${((performance.now() - sent) / 1_000).toFixed(1)} s`)
  const begun = performance.now()
  await served.send('POST', `/api/imports/${id}/start`, {})
  const progressNow = () => served.get(`/api/imports/${id}`) as Promise<ImportProgress>
  let progress = await progressNow()
  // asking is a visit too: seldom, so that it is as good as alone
  while (progress.done < ROWS / 2) {
    await pause(5_000)
    progress = await progressNow()
  }
  const perSecond = progress.done / (performance.now() - begun) * 1_000
  const waits: number[] = []
  while (progress.state === 'running') {
    const asked = performance.now()
    await timeline()
    waits.push(performance.now() - asked)
    // a busy colleague opens several a second
    await pause(250)
    if (waits.length % 4 === 0) progress = await progressNow()
  }
  if (progress.made + progress.joined !== ROWS) throw new Error(`Not all rows were brought in: ${JSON.stringify(progress)}`)
  await served.stop()
  const meanwhile = percentile(waits, 0.95)
  const bare = await bareInserts(size(10_000, 100))
  const asked = waits.length > 0 ? `${meanwhile.toFixed(1)} ms` : 'not asked: it was over too soon'
  console.log(`# timeline p95 ${usual.toFixed(1)} ms, while a file is brought in ${asked}; bare inserts ${bare.toFixed(0)} rows a second`)
  figure('import-rows-a-second', perSecond, '>=2000', perSecond >= 2_000)
  figure('import/bare-inserts', perSecond / bare, '>=0.4', perSecond >= 0.4 * bare)
  if (waits.length > 0) figure('timeline-during-import/usual', meanwhile / usual, '<=3', meanwhile <= 3 * usual)
}
finally {
  rmSync(folder, { recursive: true, force: true })
}

/** @returns people a second, each with a number, a place on a timeline and a mark that the row was seen, a hundred a statement */
async function bareInserts(count: number): Promise<number> {
  const database = await startDatabase(folder)
  const {
    rows: [like],
  } = await once<{ owner_id: string, team_id: string, import_id: string, activity_id: string }>(
    sql`select r.owner_id, r.team_id, i.id as import_id, i.activity_id from record r, record_import i limit 1`,
  )
  const begun = performance.now()
  for (let start = 0; start < count; start += 100) {
    const people = Array.from({ length: 100 }, (_, i) => ({ id: uuid(), cells: row(ROWS + start + i) }))
    await tx(async () => {
      await insertAll(
        record,
        people.map(({ id, cells }) => ({
          id,
          module: 'lead',
          name: `${cells[0]!} ${cells[1]!}`,
          firstName: cells[0],
          lastName: cells[1],
          ownerId: like!.owner_id,
          teamId: like!.team_id,
          mail: cells[3],
          city: cells[5],
          tags: [cells[6]!],
          fields: {},
          version: 1,
          madeAt: new Date(),
        })),
      )
      await insertAll(
        phone,
        people.map(({ id, cells }) => ({
          id: uuid(),
          recordId: id,
          position: 0,
          label: 'mobile',
          typed: cells[2]!,
          e164: cells[2]!.replaceAll(' ', ''),
          country: 'US',
          kind: 'unknown',
        })),
      )
      const shown = { at: new Date(), activityId: like!.activity_id, byHand: false }
      await insertAll(activityOnRecord, people.map(({ id }) => ({ recordId: id, ...shown })))
      await insertAll(importSeen, people.map(() => ({ module: 'lead', hash: randomUUID(), importId: like!.import_id, seen: 1, made: 1 })))
    })
  }
  const perSecond = count / (performance.now() - begun) * 1_000
  await database.close()
  return perSecond
}

process.exit(exitCode())
