import { v7 as uuid } from 'uuid'
import { startCheck } from '~~/server/bulk/check'
import { isHeldOut } from '~~/server/bulk/hold-out'
import { makeBulk, writeBulk } from '~~/server/bulk/make'
import { readBulk, readBulkPeople } from '~~/server/bulk/read'
import { readResults } from '~~/server/bulk/results'
import { startBulk } from '~~/server/bulk/run'
import { takeEvent } from '~~/server/texting/events'
import { bulkPeopleQuery, makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())

type Lead = Awaited<ReturnType<typeof makeLead>>
let now = DAY
const hear = (from: Lead, text: string, to = firm.portland) =>
  takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: from.e164, to: to.e164, text }, now)
const didNotArrive = (ref: string, code: string) =>
  takeEvent('practice', { id: uuid(), at: now, kind: 'undelivered', ref, key: null, code }, now)
async function seconds(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await drain(now = later(now, 1_000))
}
async function checked(people: Lead[], values: object = {}): Promise<string> {
  const id = uuid()
  const selection = { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: people.map(({ recordId }) => recordId) }
  await makeBulk(firm.ada, makeBulkForm.validateSync({ id, name: 'Winter tyres', selection }), now)
  await writeBulk(firm.ada, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: 'Tyres?', lineId: firm.portland.id, ...values }), now)
  await startCheck(firm.ada, id, now)
  await drain(now)
  return id
}
const leads = async (count: number) => {
  const made: Lead[] = []
  for (let i = 0; i < count; i++) made.push(await makeLead(firm.ada))
  return made
}

describe('who is held back', () => {
  it('is about the share that was asked for, each as likely as the other, and the same whenever it is asked', () => {
    const people = Array.from({ length: 20_000 }, (_, i) => `person-${i}`)
    for (const percent of [1, 10, 50]) {
      const held = people.filter(person => isHeldOut('a', person, percent))
      // six standard errors: by chance it fails once in a thousand million times
      const standardError = Math.sqrt(percent / 100 * (1 - percent / 100) / people.length)
      expect(Math.abs(held.length / people.length - percent / 100)).toBeLessThan(6 * standardError)
      expect(people.filter(person => isHeldOut('a', person, percent))).toEqual(held)
    }
    const [one, other] = ['a', 'b'].map(bulk => people.filter(person => isHeldOut(bulk, person, 50)))
    expect(one!.filter(person => other!.includes(person)).length / people.length).toBeCloseTo(0.25, 1)
    expect(people.some(person => isHeldOut('a', person, 0))).toBe(false)
  })

  it('gets nothing, stays so over another check, and is nobody whom another rule leaves out', async () => {
    const people = await leads(30)
    await hear(people[0]!, 'STOP')
    const id = await checked(people, { holdOut: 50 })
    const held = (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast({ standing: 'held-out' }))).rows.map(({ recordId }) => recordId)
    expect(held.length).toBeGreaterThan(2)
    expect(held).not.toContain(people[0]!.recordId)
    await startCheck(firm.ada, id, now)
    await drain(now)
    expect((await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast({ standing: 'held-out' }))).rows.map(({ recordId }) => recordId)).toEqual(held)
    await startBulk(firm.ada, id, startBulkForm.cast({}), now)
    await seconds(35)
    const detail = await readBulk(firm.ada, id)
    expect(detail).toMatchObject({ state: 'done', counts: { 'held-out': held.length, 'texted': 29 - held.length } })
    expect(carrier.asked.filter(({ confirmsOptOut }) => !confirmsOptOut)).toHaveLength(29 - held.length)
    const numbers = people.filter(({ recordId }) => held.includes(recordId)).map(({ e164 }) => e164)
    expect(carrier.asked.filter(({ to }) => numbers.includes(to))).toEqual([])
  })

  it('keeps the number from whoever shares it: that telephone gets nothing either', async () => {
    const people = await leads(12)
    const twins: Lead[] = []
    for (const one of people) twins.push(await makeLead(firm.ada, {}, one.e164))
    const id = await checked([...people, ...twins], { holdOut: 50 })
    expect((await readBulk(firm.ada, id)).leftOut).toEqual([{ reason: 'same-number', detail: null, people: 12 }])
  })
})

describe('what became of a bulk text', () => {
  it('counts what did not arrive, who answered and how fast, who opted out, and who wrote though held back', async () => {
    now = later(now, 86_400_000)
    const people = await leads(40)
    const id = await checked(people, { holdOut: 40 })
    const rows = (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast({}))).rows
    const byId = new Map(people.map(one => [one.recordId, one]))
    const [gets, held] = ['ready', 'held-out'].map(standing => rows.filter(row => row.standing === standing).map(row => byId.get(row.recordId)!))
    expect(await readResults(firm.ada, id)).toMatchObject({ answered: { hits: 0, of: 0 }, heldOut: { hits: 0, of: held!.length } })
    // before it was started nobody has written because of it, or in spite of it
    await hear(held![1]!, 'Are you open?')
    await drain(now = later(now, 60_000))
    await startBulk(firm.ada, id, startBulkForm.cast({}), now)
    await seconds(gets!.length + 3)
    const refOf = (one: Lead) => `ref-${carrier.asked.find(({ to }) => to === one.e164)!.key}`
    await didNotArrive(refOf(gets![1]!), 'recipient-unreachable')
    now = later(now, 600_000)
    await hear(gets![0]!, 'Yes please')
    // over another line it is an answer as well
    await hear(gets![3]!, 'Not now', firm.second)
    await hear(gets![2]!, 'STOP')
    await hear(held![0]!, 'Do you do winter tyres?')
    await hear(held![0]!, 'Hello?')
    await drain(now)
    const results = await readResults(firm.ada, id)
    expect(results).toMatchObject({
      failed: [{ state: 'undelivered', code: 'recipient-unreachable', people: 1 }],
      answered: { hits: 2, of: gets!.length },
      optedOut: { hits: 1, of: gets!.length },
      heldOut: { hits: 1, of: held!.length },
      cost: { micros: 8_000 * gets!.length, currency: 'USD' },
    })
    expect(results.medianMs).toBeGreaterThanOrEqual(600_000)
    expect(results.medianMs).toBeLessThan(700_000)
    // somebody who is held back is no answer to it
    expect(await readBulk(firm.ada, id)).toMatchObject({ answered: results.answered.hits })
    now = later(now, 15 * 86_400_000)
    await hear(held![2]!, 'Much later')
    await drain(now)
    expect((await readResults(firm.ada, id)).heldOut!.hits).toBe(1)
    await expect(readResults(firm.mika, id)).rejects.toMatchObject({ details: { status: 404 } })
  })
})
