import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import pino from 'pino'
import { takeOrSetAside } from '~~/server/tellers/set-aside'
import { keepUpWith } from '~~/server/tellers/keep-up'
import { tx } from '~~/server/db/door'
import { log } from '~~/server/log/log'
import { addJob } from '~~/server/jobs/add'
import { takeDue } from '~~/server/jobs/outbox'
import { takeEvent } from '~~/server/texting/events'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'
import { allRoutes, cookieOf, serve } from '../../support/routes'

useDatabase()
/** Stands in all that is written here; no log may have any of it. */
const WORDS = 'Zzsecretwordszz'
const NUMBER = '8085550177'
let firm: Firm
const logged: string[] = []

beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  log.level = 'trace'
  const stream = (log as unknown as Record<symbol, { write: (line: string) => void }>)[pino.symbols.streamSym]!
  stream.write = line => void logged.push(line)
})
afterAll(() => void (log.level = 'silent'))

/** While a table is away, everything that needs it fails in the database, with what was to be written. */
async function without<T>(table: string, work: () => Promise<T>): Promise<T> {
  await tx(database => database.execute(sql.raw(`alter table ${table} rename to away`)))
  try {
    return await work()
  }
  finally {
    await tx(database => database.execute(sql.raw(`alter table away rename to ${table}`)))
  }
}

it('no log has anybody\'s words or numbers, on whatever way something fails', async () => {
  const { recordId } = await makeLead(firm.ada, { lastName: WORDS }, `+1${NUMBER}`)
  const served = await serve(await allRoutes())
  const cookie = await cookieOf(firm.ada)
  const ask = (path: string, body: object, method = 'POST') =>
    fetch(`${served.url}${path}`, { method, headers: { cookie, 'content-type': 'application/json' }, body: JSON.stringify(body) })
  const words = `${WORDS} to +1${NUMBER}`

  // a request whose statement fails in the database, with what was written among its values
  expect((await without('activity_content', () => ask(`/api/records/${recordId}/notes`, { id: uuid(), words }))).status).toBe(500)
  expect(
    (
      await without('draft', () =>
        ask('/api/drafts', { key: `record ${recordId}`, text: words, ref: '00000000', pictureIds: [], at: 1 }, 'PUT'),
      )
    ).status,
  ).toBeGreaterThanOrEqual(422)
  expect(
    (
      await without('phone', () =>
        ask('/api/records', { id: uuid(), module: 'lead', firstName: WORDS, phones: [{ label: 'mobile', typed: NUMBER }] }),
      )
    ).status,
  ).toBe(500)
  expect((await without('audit', () => ask('/api/sign-in', { mail: 'ada@pannier.example', password: WORDS }))).status).toBe(500)
  // an event that cannot be taken, and one that cannot be read
  await without('conversation', () =>
    takeEvent(
      'practice',
      { id: uuid(), at: DAY, kind: 'received', ref: uuid(), from: `+1${NUMBER}`, to: firm.portland.e164, text: words },
      DAY,
    ),
  ).catch(error => log.error({ err: error }, 'as the server logs it'))
  await takeOrSetAside(
    { name: 'odd', eventsSince: async cursor => ({ told: [], cursor }), take: () => Promise.reject(new TypeError(words)) },
    { words },
    DAY,
  )
  // jobs whose beginning and whose work break with the words in their errors
  await addJob({ kind: 'begin', key: words, payload: { words }, dueAt: DAY })
  await addJob({ kind: 'work', key: words, payload: { words }, dueAt: DAY })
  const { works } = await takeDue(
    {
      handlers: {
        begin: async () => Promise.reject(new Error(words)),
        work: async claims => claims.map(() => () => Promise.reject(new RangeError(words))),
      },
    },
    () => DAY,
    10,
  )
  for (const work of works) await work()
  // somebody who does not answer, and says something strange about it
  const stop = keepUpWith([], [{ name: 'away', eventsSince: () => Promise.reject(new Error(words)), take: async () => true }], 60_000)
  await new Promise(resolve => setTimeout(resolve, 50))
  stop()
  await served.close()

  expect(logged.length).toBeGreaterThanOrEqual(8)
  expect(logged.filter(line => line.includes(WORDS) || line.includes(NUMBER))).toEqual([])
  const { rows } = await tx(database => database.execute<{ last_failure: string }>(sql`select last_failure from job
    where last_failure is not null`))
  expect(rows).toHaveLength(2)
  expect(JSON.stringify(rows)).not.toContain(WORDS)
})
