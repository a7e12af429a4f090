import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { layDemo } from '../demo/lay'
import { FIRST_NAMES, LAST_NAMES } from '../demo/names'
import { PIECE_ROWS, type ImportProgress } from '../shared/import'
import type { RecordPage } from '../shared/record'
import { serve } from './served'
import { exitCode, figure, percentile, timeEach } from './support'

/** A file of 100,000 people brought in over HTTP: how many a second, and what a colleague waits for a timeline meanwhile. */
const ROWS = Number(process.env.BENCH_ROWS ?? 100_000)
const FIRMS = 2_000
const RUNS = 200
const port = 4850
const HEADINGS = ['First name', 'Last name', 'Mobile', 'Mail', 'Company', 'City', 'Tags']

const row = (n: number) => [FIRST_NAMES[n % FIRST_NAMES.length]!, `${LAST_NAMES[(n * 7) % LAST_NAMES.length]!} ${n}`, `+1 ${[415, 510, 650][n % 3]} ${200 + Math.floor(n / 10_000) % 700} ${String(n % 10_000).padStart(4, '0')}`, `import${n}@post.example`, `Firm ${n % FIRMS}`, 'Hilo', 'fair']

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
try {
  await layDemo(folder, false)
  const served = await serve(folder, port)
  const me = await served.get('/api/me') as { id: string }
  const { rows: [iris] } = await served.get(`/api/records?${new URLSearchParams({ module: 'lead', words: 'Iris Holm' }).toString()}`) as RecordPage
  const timeline = () => served.get(`/api/records/${iris!.id}/timeline`)
  const usual = percentile(await timeEach(RUNS, timeline), 0.95)

  const id = uuid()
  const rules = { matching: ['first-name', 'last-name', 'phone', 'mail', 'company', 'city', 'tags'], country: 'US', dayOrders: HEADINGS.map(() => null), duplicates: { number: 'keep-both', mail: 'join', name: 'join' }, ownerId: me.id }
  await served.send('POST', '/api/imports', { id, module: 'lead', fileName: 'bench.csv', headings: HEADINGS, total: ROWS, rules })
  const sent = performance.now()
  for (let start = 0; start < ROWS; start += 40 * PIECE_ROWS) await served.send('PUT', `/api/imports/${id}/rows`, { place: start / PIECE_ROWS, rows: Array.from({ length: Math.min(40 * PIECE_ROWS, ROWS - start) }, (_, i) => row(start + i)) })
  console.log(`# ${ROWS} rows sent in ${((performance.now() - sent) / 1_000).toFixed(1)} s`)
  const begun = performance.now()
  await served.send('POST', `/api/imports/${id}/start`, {})
  const waits: number[] = []
  let progress = await served.get(`/api/imports/${id}`) as ImportProgress
  while (progress.state === 'running') {
    const asked = performance.now()
    await timeline()
    waits.push(performance.now() - asked)
    // a busy colleague opens several a second
    await new Promise(resolve => setTimeout(resolve, 250))
    if (waits.length % 4 === 0) progress = await served.get(`/api/imports/${id}`) as ImportProgress
  }
  const perSecond = ROWS / (performance.now() - begun) * 1_000
  if (progress.made + progress.joined !== ROWS) throw new Error(`Not all rows were brought in: ${JSON.stringify(progress)}`)
  const meanwhile = percentile(waits, 0.95)
  console.log(`# timeline p95 ${usual.toFixed(1)} ms, while a file is brought in ${meanwhile.toFixed(1)} ms`)
  figure('import-rows-a-second', perSecond, '>=2000', perSecond >= 2_000)
  figure('timeline-during-import/usual', meanwhile / usual, '<=3', meanwhile <= 3 * usual)
  await served.stop()
}
finally {
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
