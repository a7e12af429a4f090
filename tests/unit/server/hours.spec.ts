import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { everyDay } from '~~/core/hours/week'
import { startCheck } from '~~/server/bulk/check'
import { makeBulk, writeBulk } from '~~/server/bulk/make'
import { previewPlan } from '~~/server/bulk/plan'
import { readBulk } from '~~/server/bulk/read'
import { startBulk } from '~~/server/bulk/run'
import { dial } from '~~/server/calling/dial'
import { tx } from '~~/server/db/door'
import { audit, record } from '~~/server/db/schema'
import { holidaysIn } from '~~/server/hours/holidays'
import { addClosedDay, keepHolidays, readHours, removeClosedDay, setPlaceHours, takeBackPlaceHours } from '~~/server/hours/set-up'
import { sendText } from '~~/server/texting/send'
import { makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { dialForm } from '~~/shared/schemas/calling'
import { closedDayForm, placeHoursForm, placeParams } from '~~/shared/schemas/hours'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
beforeEach(() => {
  fakeCarrier()
  fakeExchange()
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const day = (values: object = {}) => closedDayForm.validateSync({ id: uuid(), place: '', day: '2026-12-30', name: 'Stocktaking', ...values })
const notedOf = async (action: string) =>
  (await tx(database => database.select().from(audit).where(eq(audit.action, action as 'place-hours-set')))).map(({ details }) => details)
const placeOf = async (place: string) => (await readHours(firm.rafe, DAY)).places.find(one => one.place === place)

async function checkedBulk(ids: string[]): Promise<string> {
  const id = uuid()
  const selection = { list: { module: 'lead', sort: 'name', direction: 'up' }, ids }
  await makeBulk(firm.ada, makeBulkForm.validateSync({ id, name: 'Tyres', selection }), DAY)
  await writeBulk(firm.ada, id, writeBulkForm.validateSync({ name: 'Tyres', body: 'Hi {{ person.first_name }}', lineId: firm.portland.id }), DAY)
  await startCheck(firm.ada, id, DAY)
  await drain(DAY)
  return id
}

describe('the hours of the house', () => {
  it('are the laws of places until an admin says otherwise, and again once that is taken back', async () => {
    expect(await placeOf('US-TX')).toMatchObject({ law: { source: expect.stringContaining('Texas') }, chosen: null, week: expect.any(Array) })
    const { week } = everyDay({ from: 10, to: 16.5 })
    await setPlaceHours(firm.rafe, 'US-TX', { week: [...week] }, DAY)
    expect(await placeOf('US-TX')).toMatchObject({ chosen: { at: DAY.getTime() }, week })
    await setPlaceHours(firm.rafe, 'US-TX', { week: null }, DAY)
    expect(await placeOf('US-TX')).toMatchObject({ week: null, chosen: expect.any(Object) })
    await takeBackPlaceHours(firm.rafe, 'US-TX', DAY)
    expect(await placeOf('US-TX')).toMatchObject({ chosen: null })
    await expect(takeBackPlaceHours(firm.rafe, 'US-TX', DAY)).rejects.toMatchObject(problem(404))
    expect(await notedOf('place-hours-set')).toHaveLength(2)
    expect(await notedOf('place-hours-taken-back')).toEqual([{ place: 'US-TX' }])
  })

  it('hold for texts and calls as soon as they are set, and a person may still say now', async () => {
    const lead = await makeLead(firm.ada)
    await setPlaceHours(firm.rafe, 'US-HI', { week: [...everyDay({ from: 12, to: 14 }).week] }, DAY)
    // ten in the morning there
    const at = new Date('2026-11-25T20:00:00Z')
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland), at)).rejects.toMatchObject(
      problem(409, { type: 'night', reason: 'place-hours', notBefore: Date.parse('2026-11-25T22:00:00Z') }),
    )
    await expect(dial(firm.ada, dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId }), at))
      .rejects.toMatchObject(problem(409, { type: 'night', reason: 'place-hours' }))
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland, { nightAllowed: true }), at)).resolves.toBeTruthy()
    await takeBackPlaceHours(firm.rafe, 'US-HI', DAY)
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'And again.' }), at)).resolves.toBeTruthy()
  })

  it('keep a bulk text from whoever is in such a place, and plan the others', async () => {
    const [texan, other] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    await tx(database => database.update(record).set({ region: 'TX', zone: null, country: 'US' }).where(eq(record.id, texan.recordId)))
    await setPlaceHours(firm.rafe, 'US-TX', { week: Array<null>(7).fill(null) }, DAY)
    const id = await checkedBulk([texan.recordId, other.recordId])
    expect(await readBulk(firm.ada, id)).toMatchObject({ leftOut: [{ reason: 'never-in-hours', people: 1 }], counts: { ready: 1 } })
    expect(await previewPlan(firm.ada, id, startBulkForm.cast({}), DAY)).toMatchObject({ runs: [{ people: 1 }] })
    await takeBackPlaceHours(firm.rafe, 'US-TX', DAY)
  })

  it('keep whoever is still to come from being texted on a day off that is put in while a bulk text runs', async () => {
    const people = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await checkedBulk(people.map(({ recordId }) => recordId))
    // nine in the morning there
    const start = new Date('2026-12-02T19:00:00Z')
    await startBulk(firm.ada, id, startBulkForm.cast({ start: start.getTime() }), DAY)
    const off = day({ place: 'US-HI', day: '2026-12-02' })
    await addClosedDay(firm.rafe, off, DAY)
    await drain(later(start, 1_000))
    const { runs, counts } = await readBulk(firm.ada, id)
    expect(counts).toMatchObject({ ready: 2, texted: 0 })
    // eight in the morning of the day after
    expect(runs![0]!.from).toBe(Date.parse('2026-12-03T18:00:00Z'))
    await removeClosedDay(firm.rafe, off.id, DAY)
  })

  it('are an admin’s to change', async () => {
    for (const who of [firm.ada, firm.odile]) {
      await expect(readHours(who, DAY)).rejects.toMatchObject(problem(403))
      await expect(setPlaceHours(who, 'US-TX', { week: null }, DAY)).rejects.toMatchObject(problem(403))
      await expect(takeBackPlaceHours(who, 'US-TX', DAY)).rejects.toMatchObject(problem(403))
      await expect(keepHolidays(who, 'US', true, DAY)).rejects.toMatchObject(problem(403))
      await expect(addClosedDay(who, day(), DAY)).rejects.toMatchObject(problem(403))
      await expect(removeClosedDay(who, uuid(), DAY)).rejects.toMatchObject(problem(403))
    }
  })

  it.each([
    [{ from: 7, to: 20 }, /Nobody is reached before/], [{ from: 9, to: 22 }, /Nobody is reached after/], [{ from: 15, to: 15 }, /end before they begin/],
    [{ from: 9.25, to: 20 }, /half hour/], [{ from: null, to: 20 }, /Choose an hour/],
  ])('are refused as %j', (hours, words) => {
    expect(() => placeHoursForm.validateSync({ week: [null, null, hours, null, null, null, null] })).toThrow(words)
  })

  it('are of seven days and of a place that there is', () => {
    expect(() => placeHoursForm.validateSync({ week: [null] })).toThrow(/seven/)
    for (const place of ['US-ZZ', 'XX', '']) expect(() => placeParams.validateSync({ place })).toThrow()
    expect(placeParams.validateSync({ place: 'CA-QC' })).toEqual({ place: 'CA-QC' })
  })
})

describe('days on which nobody is reached', () => {
  it('are the public holidays of countries where that is wished', async () => {
    // Thanksgiving 2026 is Thursday, November 26 (5 U.S.C. 6103(a), from memory)
    const [thanksgiving, lead] = [new Date('2026-11-26T20:00:00Z'), await makeLead(firm.ada)]
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland), thanksgiving)).resolves.toBeTruthy()
    await keepHolidays(firm.rafe, 'US', true, DAY)
    await keepHolidays(firm.rafe, 'US', true, DAY)
    expect((await readHours(firm.rafe, DAY)).countries.find(({ country }) => country === 'US'))
      .toMatchObject({ kept: true, next: [{ day: '2026-11-26', name: 'Thanksgiving Day' }, { day: '2026-12-25' }, { day: '2027-01-01' }, expect.anything()] })
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'Happy holiday' }), thanksgiving))
      .rejects.toMatchObject(problem(409, { type: 'night', reason: 'closed-day', notBefore: Date.parse('2026-11-27T18:00:00Z') }))
    await keepHolidays(firm.rafe, 'US', false, DAY)
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'Hello again' }), thanksgiving)).resolves.toBeTruthy()
    await expect(keepHolidays(firm.rafe, 'AQ', true, DAY)).rejects.toMatchObject(problem(404))
  })

  it('differ by province, as published (from memory: Holidays Act, R.S.C. 1985; Bank Holidays of England and Wales 2026)', () => {
    const days = (place: string) => holidaysIn(place, 2026).map(one => one.day)
    expect(days('CA')).toEqual(expect.arrayContaining(['2026-01-01', '2026-07-01', '2026-12-25']))
    // St. Jean Baptiste Day is Quebec's
    expect([days('CA-QC').includes('2026-06-24'), days('CA-NS').includes('2026-06-24')]).toEqual([true, false])
    expect(days('GB')).toEqual(expect.arrayContaining(['2026-01-01', '2026-04-03', '2026-05-04', '2026-05-25', '2026-12-25']))
  })

  it('are the firm’s own as well, each once', async () => {
    const form = day({ place: 'CA' })
    await addClosedDay(firm.rafe, form, DAY)
    // an answer was lost, and it is sent once more
    await addClosedDay(firm.rafe, form, DAY)
    await expect(addClosedDay(firm.rafe, day({ place: 'CA' }), DAY)).rejects.toMatchObject(problem(409, { type: 'day-is-there' }))
    await addClosedDay(firm.rafe, day(), DAY)
    // one that has passed is of no interest
    await addClosedDay(firm.rafe, day({ day: '2026-11-01' }), DAY)
    expect((await readHours(firm.rafe, DAY)).closed).toMatchObject([{ place: 'CA' }, { place: null, name: 'Stocktaking' }])
    await removeClosedDay(firm.rafe, form.id, DAY)
    expect((await readHours(firm.rafe, DAY)).closed).toHaveLength(1)
    await expect(removeClosedDay(firm.rafe, form.id, DAY)).rejects.toMatchObject(problem(404))
    expect(await notedOf('closed-day-removed')).toContainEqual({ place: 'CA', day: '2026-12-30', name: 'Stocktaking' })
  })

  it.each([[{ name: '' }, /what day it is/], [{ day: '' }, /Choose a day/], [{ day: '2026-02-30' }, /no such day/], [{ place: 'US-ZZ' }, /no such country/]])(
    'are refused with %j', (values, words) => expect(() => day(values)).toThrow(words),
  )
})
