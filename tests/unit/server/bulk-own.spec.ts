import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { startCheck } from '~~/server/bulk/check'
import { makeBulk, writeBulk } from '~~/server/bulk/make'
import { readOne, writeOwn } from '~~/server/bulk/own'
import { readBulkPeople } from '~~/server/bulk/read'
import { removeBulk } from '~~/server/bulk/remove'
import { startBulk } from '~~/server/bulk/run'
import { takeOut } from '~~/server/bulk/take-out'
import { tx } from '~~/server/db/door'
import { bulkPerson, phone, record } from '~~/server/db/schema'
import { takeEvent } from '~~/server/texting/events'
import { bulkPeopleQuery, makeBulkForm, ownTextForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
let days = 0
let now = DAY
beforeEach(() => now = later(DAY, 10 * ++days * 86_400_000))

const BODY = 'Hi {{ person.first_name }}, it is time for winter tyres. Ada'
const written = (values: object = {}) => writeBulkForm.validateSync({ name: 'Winter tyres', body: BODY, lineId: firm.portland.id, ...values })
async function check(id: string): Promise<void> {
  await startCheck(firm.ada, id, now)
  await drain(now)
}
async function checked(people: { recordId: string }[], values: object = {}): Promise<string> {
  const id = uuid()
  const selection = { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: people.map(({ recordId }) => recordId) }
  await makeBulk(firm.ada, makeBulkForm.validateSync({ id, name: 'Winter tyres', selection }), now)
  await writeBulk(firm.ada, id, written(values), now)
  await check(id)
  return id
}
const own = (id: string, recordId: string, values: object = {}) => writeOwn(firm.ada, id, recordId, ownTextForm.validateSync(values), now)
const row = async (id: string, recordId: string) =>
  (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast({}))).rows.find(one => one.recordId === recordId)

/** Gives somebody one more number. */
async function another(recordId: string, e164: string, values: object = {}): Promise<string> {
  const id = uuid()
  await tx(database => database.insert(phone)
    .values({ id, recordId, position: 1, label: 'work', typed: e164, e164, country: 'US', kind: 'unknown', ...values }))
  return id
}

describe('a bulk text that is not to be', () => {
  it('is removed with what was found in it before it is started, and never afterwards', async () => {
    const one = await makeLead(firm.ada)
    const [first, second] = [await checked([one]), await checked([one])]
    await expect(removeBulk(firm.mika, first, now)).rejects.toMatchObject(problem(404))
    await removeBulk(firm.ada, first, now)
    await expect(removeBulk(firm.ada, first, now)).rejects.toMatchObject(problem(404))
    expect(await tx(database => database.select().from(bulkPerson).where(eq(bulkPerson.bulkId, first)))).toEqual([])
    await startBulk(firm.ada, second, startBulkForm.cast({}), now)
    await expect(removeBulk(firm.ada, second, now)).rejects.toMatchObject(problem(409, { type: 'started' }))
    for (let i = 0; i < 3; i++) await drain(now = later(now, 1_000))
    expect(carrier.asked).toHaveLength(1)
  })
})

describe('what somebody gets alone', () => {
  it('is their own words and number, is looked at anew at once, and is what is sent', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const work = await another(one.recordId, '+15035550771')
    const id = await checked([one, two])
    expect(await readOne(firm.ada, id, one.recordId, now)).toMatchObject({ phoneId: one.phoneId, ownPhone: false, ownWords: false })
    await own(id, one.recordId, { words: 'Iris, your tyres are in. Ada', phoneId: work })
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', words: 'Iris, your tyres are in. Ada', parts: 1, own: true, number: '+1 503 555 0771' })
    expect(await row(id, two.recordId)).toMatchObject({ own: false })
    expect(await readOne(firm.ada, id, one.recordId, now)).toMatchObject({ phoneId: work, ownPhone: true, ownWords: true })
    await startBulk(firm.ada, id, startBulkForm.cast({}), now)
    for (let i = 0; i < 4; i++) await drain(now = later(now, 1_000))
    expect(carrier.asked.find(({ to }) => to === '+15035550771')).toMatchObject({ text: 'Iris, your tyres are in. Ada' })
    expect(carrier.asked).toHaveLength(2)
    await expect(own(id, one.recordId)).rejects.toMatchObject(problem(409))
  })

  it('fills a gap that nobody else has, and is refused as long as the gap is there', async () => {
    const one = await makeLead(firm.ada)
    await tx(database => database.update(record).set({ firstName: null }).where(eq(record.id, one.recordId)))
    const id = await checked([one])
    const gapped = 'Hi ____, it is time for winter tyres. Ada'
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'left-out', reason: 'empty-field', words: gapped })
    await expect(own(id, one.recordId, { words: gapped })).rejects.toMatchObject(problem(422, { fields: { words: expect.stringContaining('gap') } }))
    await own(id, one.recordId, { words: gapped.replace('____', 'Iris') })
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', reason: null, words: 'Hi Iris, it is time for winter tyres. Ada' })
  })

  it('survives another check, and is looked at again once all the others get something else', async () => {
    const one = await makeLead(firm.ada)
    const id = await checked([one])
    await own(id, one.recordId, { words: 'The 3rd at 5, Iris.' })
    await writeBulk(firm.ada, id, written({ latelyDays: 9 }), now)
    await check(id)
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', words: 'The 3rd at 5, Iris.' })
    await writeBulk(firm.ada, id, written({ place: 'Hilo' }), now)
    await check(id)
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'left-out', reason: 'own-words-old', words: 'The 3rd at 5, Iris.' })
    await own(id, one.recordId, { words: 'The 4th at 5, Iris.' })
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', words: 'The 4th at 5, Iris.' })
    await own(id, one.recordId)
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', words: expect.stringContaining('winter tyres'), own: false })
  })

  it('gives a number that two share to the second once the first has another one', async () => {
    const one = await makeLead(firm.ada)
    const two = await makeLead(firm.ada, {}, one.e164)
    const work = await another(one.recordId, '+15035550772')
    const id = await checked([one, two])
    expect(await row(id, two.recordId)).toMatchObject({ standing: 'left-out', reason: 'same-number' })
    await own(id, one.recordId, { phoneId: work })
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'ready', number: '+1 503 555 0772' })
    expect(await row(id, two.recordId)).toMatchObject({ standing: 'ready', reason: null })
    await own(id, one.recordId)
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'left-out', reason: 'same-number' })
  })

  it('takes no number that gets no texts, nobody else’s, and nobody whom one may not see', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const landline = await another(one.recordId, '+15035550773', { kind: 'landline' })
    const id = await checked([one])
    const wrong = problem(422, { fields: { phoneId: expect.any(String) } })
    await expect(own(id, one.recordId, { phoneId: landline })).rejects.toMatchObject(wrong)
    await expect(own(id, one.recordId, { phoneId: two.phoneId })).rejects.toMatchObject(wrong)
    await expect(own(id, two.recordId)).rejects.toMatchObject(problem(404))
    await expect(writeOwn(firm.mika, id, one.recordId, ownTextForm.cast({}), now)).rejects.toMatchObject(problem(404))
    await expect(readOne(firm.mika, id, one.recordId, now)).rejects.toMatchObject(problem(404))
    await takeOut(firm.ada, id, { recordId: one.recordId, lately: false, out: true }, now)
    await expect(own(id, one.recordId)).rejects.toMatchObject(problem(404))
    expect(() => ownTextForm.validateSync({ words: '  ' })).toThrow('Write what they get')
  })

  it('is no way past an opt-out', async () => {
    const one = await makeLead(firm.ada)
    const work = await another(one.recordId, '+15035550774')
    const id = await checked([one])
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: one.e164, to: firm.portland.e164, text: 'STOP' }, now)
    await own(id, one.recordId, { phoneId: work, words: 'Only this once.' })
    expect(await row(id, one.recordId)).toMatchObject({ standing: 'left-out', reason: 'opted-out' })
  })
})
