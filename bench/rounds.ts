import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect as expectSoon } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import { DEMO_PASSWORD } from '../demo/lay'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../scripts/world.mjs'
import { dial } from '../server/calling/dial'
import { registerExchange } from '../server/calling/port'
import { makeRound } from '../server/calling/rounds/make'
import { nextInRound } from '../server/calling/rounds/next'
import { addToCall } from '../server/calling/stored'
import { startDatabase } from '../server/db/start'
import { colleagueAtWork } from '../server/identity/sign-in'
import { dialForm } from '../shared/schemas/calling'
import { roundForm } from '../shared/schemas/round'
import { openBrowser, sayTimes, signIn } from './browser'
import { fillPeople } from './people'
import { exitCode, figure, percentile, size } from './support'

/**
 * Call rounds among 100,000 people: from the key that says how a call went to the page of the next person, painted and
 * ringing; and handing out 1,000 people to 8 at once over HTTP against the same in the process itself.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(100_000, 300))
const ROUND = Number(process.env.BENCH_ROUND ?? size(1_000, 40))
const KEYS = size(30, 3)
const WORKERS = 8
const AIM_MS = 300
const port = 4870
const address = `http://127.0.0.1:${port}`
const handsets = `http://127.0.0.1:${port + 1}/handsets/api`

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await copyDemo(folder)
let database = await startDatabase(folder)
const people = (await fillPeople(database, PEOPLE)).slice(0, 2 * ROUND + KEYS + 10)
/** A place where it is day, so that nobody is passed over for their night. */
const hours = (36 - new Date().getUTCHours()) % 24
await database.pool.query('update record set zone = $1 where id = any($2)', [
  hours <= 12 ? `Etc/GMT-${hours}` : `Etc/GMT+${24 - hours}`,
  people.map(({ id }) => id),
])
const {
  rows: [ada],
} = await database.pool.query<{ id: string, team: string }>(
  'select c.id, m.team_id as team from colleague c join team_member m on m.colleague_id = c.id where c.mail = \'ada@pannier.example\'',
)
const workers: { id: string, mail: string }[] = []
for (let n = 0; n < WORKERS; n++) {
  const one = { id: uuid(), mail: `worker${n}@pannier.example` }
  await database.pool.query(
    'insert into colleague (id, name, first_name, mail, password_hash, role, title, zone) select $1, $2, $2, $3, password_hash, role, title, zone from colleague where id = $4',
    [one.id, `Worker ${n}`, one.mail, ada!.id],
  )
  await database.pool.query('insert into team_member (team_id, colleague_id) values ($1, $2)', [ada!.team, one.id])
  workers.push(one)
}
const roundOf = async (ids: string[], pauseSeconds: number | null) => {
  const id = uuid()
  await makeRound(
    (await colleagueAtWork(ada!.id))!,
    roundForm.validateSync({
      id,
      name: `Bench ${id.slice(-4)}`,
      selection: { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: ids.slice(0, 1_000) },
      teamId: ada!.team,
      pauseSeconds,
    }),
    new Date(),
  )
  return id
}
const ids = people.map(({ id }) => id)
const [byKey, overHttp, bare] = [
  await roundOf(ids.slice(0, KEYS + 10), 0),
  await roundOf(ids.slice(-ROUND), null),
  await roundOf(ids.slice(KEYS + 10, KEYS + 10 + ROUND), null),
]
await database.close()

// what a slow machine takes longer for is measured, or does not count
const expect = expectSoon.configure({ timeout: 60_000 })

/** Eight work a round until nobody is left; gives how long each hand-out took. */
async function workItOut(
  handOut: (worker: number) => Promise<{ phoneId: string } | null>,
  call: (worker: number, phoneId: string) => Promise<void>,
): Promise<number[]> {
  const samples: number[] = []
  await Promise.all(
    workers.map(async (_, worker) => {
      for (;;) {
        const begun = performance.now()
        const inHand = await handOut(worker)
        samples.push(performance.now() - begun)
        if (!inHand) return
        await call(worker, inHand.phoneId)
      }
    }),
  )
  return samples
}

process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1, env: { PRACTICE_CALL_PACE: '{"ringing":0}' } })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  for (const { e164 } of people.slice(0, KEYS + 10))
    await fetch(`${handsets}/calls`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ phone: e164, act: 'manner', manner: 'by-hand' }),
    })
  const page = await signIn(browser, address, 'ada')
  await page.goto(`${address}/calling/${byKey}`)
  await page.getByRole('button', { name: 'Work on it' }).click()
  const shelf = page.getByRole('region', { name: 'Shelf' })
  const samples: number[] = []
  for (let turn = 0; turn < KEYS; turn++) {
    await expect(shelf).toContainText('it rings')
    const heading = await page.locator('h1').textContent()
    await page.waitForTimeout(700)
    await page.keyboard.press('Alt+e')
    await page.getByRole('button', { name: /^A No answer/ }).and(page.locator(':focus')).waitFor()
    await page.waitForTimeout(300)
    await page.evaluate((before) => {
      let begun = 0
      Object.assign(window, { ringsAfter: null })
      window.addEventListener('keydown', event => begun = event.timeStamp, { once: true, capture: true })
      const frame = () => {
        const name = document.querySelector('h1')?.textContent ?? ''
        const rings = [...document.querySelectorAll('.strip .call')].some(
          item => item.textContent.includes(name) && item.textContent.includes('it rings'),
        )
        if (begun > 0 && name !== '' && name !== before && rings)
          requestAnimationFrame(() => setTimeout(() => Object.assign(window, { ringsAfter: performance.now() - begun }), 0))
        else requestAnimationFrame(frame)
      }
      frame()
    }, heading)
    await page.keyboard.press('m')
    samples.push(
      (await (await page.waitForFunction(() => (window as unknown as { ringsAfter: number | null }).ringsAfter)).jsonValue()) as number,
    )
  }
  console.log(`# from the key that says how it went to the next person's page, painted and ringing, ${PEOPLE} people: ${sayTimes(samples)}`)
  figure('key-to-next-ringing-p95-ms', percentile(samples, 0.95), `<=${AIM_MS}`, percentile(samples, 0.95) <= AIM_MS)
  await page.keyboard.press('Alt+e')
  await page.close()

  const cookies = await Promise.all(
    workers.map(
      async ({ mail }) =>
        (
          await fetch(`${address}/api/sign-in`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ mail, password: DEMO_PASSWORD }),
          })
        ).headers
          .get('set-cookie')!
          .split(';')[0]!,
    ),
  )
  const ask = (worker: number, path: string, body: object = {}) =>
    fetch(`${address}${path}`, {
      method: 'POST',
      headers: { 'cookie': cookies[worker]!, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  const http = await workItOut(
    async worker => ((await (await ask(worker, `/api/rounds/${overHttp}/next`)).json()) as { inHand: { phoneId: string } | null }).inHand,
    async (worker, phoneId) => {
      const id = uuid()
      // the end of the call before may still be on its way
      while ((await ask(worker, '/api/calls', { id, phoneId })).status === 409) await new Promise(resolve => setTimeout(resolve, 10))
      await ask(worker, `/api/calls/${id}/order`, { order: 'hang-up' })
      await ask(worker, `/api/calls/${id}/put-away`)
    })
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))

  database = await startDatabase(folder)
  const {
    rows: [dialled],
  } = await database.pool.query<{ calls: number, numbers: number }>(
    'select count(*)::int as calls, count(distinct c.remote)::int as numbers from call c join round_person p on p.call_id = c.id where p.round_id = $1',
    [overHttp],
  )
  figure(
    'dialled-more-than-once',
    dialled!.calls - dialled!.numbers,
    '<=0',
    dialled!.calls === dialled!.numbers && dialled!.numbers === ROUND,
  )
  registerExchange({
    name: 'bench',
    dial: async ({ key }) => ({ kind: 'dialling', ref: key }),
    order: async () => 'done',
    takeMessage: async () => 'done',
    ringAlong: async () => 'done',
    seat: async () => 'done',
    tones: async () => 'done',
    leave: async () => 'done',
    whatBecameOf: async () => ({ kind: 'never' }),
    eventsSince: async cursor => ({ told: [], cursor }),
    recordingOf: async () => null,
    isSigned: () => false,
    readEvent: () => {
      throw new Error('Nobody tells anything here.')
    },
  })
  const askers = await Promise.all(workers.map(async ({ id }) => (await colleagueAtWork(id))!))
  const inside = await workItOut(
    async worker => (await nextInRound(askers[worker]!, bare, new Date())).inHand,
    async (worker, phoneId) => {
      const id = uuid()
      await dial(askers[worker]!, dialForm.validateSync({ id, phoneId }), new Date())
      await addToCall(id, { kind: 'ended', at: Date.now(), why: 'hung-up', side: 'us' })
    })
  console.log(`# handing out ${ROUND} to ${WORKERS} at once: over HTTP ${sayTimes(http)}; in the process ${sayTimes(inside)}`)
  const ratio = percentile(http, 0.95) / percentile(inside, 0.95)
  figure('hand-out-http/in-process', ratio, '<=3', ratio <= 3)
}
finally {
  await browser.close().catch(() => undefined)
  for (const { child } of [application, practice]) child.kill()
  await database.close().catch(() => undefined)
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
