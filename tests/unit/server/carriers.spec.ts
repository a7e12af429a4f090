import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import events from '~~/server/api/carriers/[carrier]/events.post'
import { fetchPrices } from '~~/server/tellers/keep-up'
import { tellOfAway } from '~~/server/carriers/away'
import type { Carrier, CarrierEvent, CarrierState, CarrierText } from '~~/server/carriers/port'
import { carrierNamed, carrierRegistered, registerCarrier } from '~~/server/carriers/registry'
import { openSessions } from '~~/server/tellers/sessions'
import { tx } from '~~/server/db/door'
import { carrierPrice, line, message } from '~~/server/db/schema'
import { takeEvent } from '~~/server/texting/events'
import { listen } from '~~/server/live/notices'
import { readToday } from '~~/server/pages/today'
import { listCarriers } from '~~/server/carriers/accounts'
import { changeLine, listLines } from '~~/server/texting/line-edit'
import { sendText } from '~~/server/texting/send'
import { readTimeline } from '~~/server/timeline/read'
import { lineForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'
import { serve } from '../../support/routes'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
beforeEach(() => void fakeCarrier())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const LEFT = later(DAY, 10_000)

/** A carrier that knows no more than it must: no webhook, no list of events, no prices. */
function plainCarrier(name: string, more: Partial<Carrier> = {}) {
  const asked: CarrierText[] = []
  registerCarrier({
    name,
    title: 'Over the wire',
    hand: async (text) => {
      asked.push(text)
      return { kind: 'accepted', ref: '1', charge: null }
    },
    readEvent: told => told as CarrierEvent,
    ...more,
  })
  return asked
}

async function over(carrier: string): Promise<void> {
  const before = (await listLines(firm.rafe)).find(({ id }) => id === firm.portland.id)!
  await changeLine(firm.rafe, firm.portland.id, lineForm.validateSync({ ...before, carrier }), DAY)
}

async function sent(values: object = {}) {
  const lead = await makeLead(firm.ada)
  const form = textTo(lead.phoneId, firm.portland, values)
  await sendText(firm.ada, form, DAY)
  return { id: form.id, ...lead }
}
const stored = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!

describe('the carrier of a line', () => {
  afterEach(() => over('practice'))

  it('is chosen by an admin among those that there are', async () => {
    plainCarrier('wire')
    expect(await listCarriers(firm.rafe)).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ name: 'practice', account: null, lines: expect.arrayContaining(['Portland line']) }),
        expect.objectContaining({ name: 'wire', title: 'Over the wire', lines: [] }),
      ]),
    )
    await expect(listCarriers(firm.odile)).rejects.toMatchObject(problem(403))
    await over('wire')
    expect((await listLines(firm.rafe)).find(({ id }) => id === firm.portland.id)).toMatchObject({ carrier: 'wire' })
    await expect(over('nobody')).rejects.toMatchObject(problem(422, { fields: { carrier: expect.stringContaining('no such carrier') } }))
  })

  it('is not asked a second time where it has no key against doubles: a crash in between leaves that to a person', async () => {
    const asked = plainCarrier('wire', { keyless: true })
    await over('wire')
    const { id } = await sent()
    await tx(database => database.update(message).set({ state: 'handing-over', handedAt: DAY }).where(eq(message.id, id)))
    await drain(LEFT)
    expect(await stored(id)).toMatchObject({ state: 'not-known', code: 'answer-lost' })
    expect(asked).toEqual([])
  })

  it('takes what waits once it is another one; of what may have left only the one that was asked can say anything', async () => {
    const practice = fakeCarrier()
    practice.next({ kind: 'try-later', afterMs: 1_000, certain: false, code: 'answer-lost' })
    const [uncertain, waits] = [await sent(), await sent({ later: { wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' } })]
    await drain(LEFT)
    const wire = plainCarrier('wire')
    await over('wire')
    await drain(later(LEFT, 60_000))
    await drain(new Date('2026-12-01T19:00:00Z'))
    expect([practice.asked.map(({ key }) => key), wire.map(({ key }) => key)]).toEqual([[uncertain.id, uncertain.id], [waits.id]])
    expect([await stored(uncertain.id), await stored(waits.id)]).toMatchObject([
      { state: 'accepted', carrier: 'practice' },
      { state: 'accepted', carrier: 'wire' },
    ])
  })
})

describe('what a carrier calls a text', () => {
  it('is its own: two carriers may use one name, and none speaks for another', async () => {
    plainCarrier('one wire')
    plainCarrier('other wire')
    await over('one wire')
    const first = await sent()
    await drain(LEFT)
    await over('other wire')
    const second = await sent()
    await drain(LEFT)
    expect([await stored(first.id), await stored(second.id)]).toMatchObject([
      { carrierRef: '1', state: 'accepted' },
      { carrierRef: '1', state: 'accepted' },
    ])
    const report = (key: string | null) => ({ id: uuid(), at: LEFT, kind: 'delivered' as const, ref: '1', key, code: null })
    await takeEvent('other wire', report(null), LEFT)
    await takeEvent('other wire', report(first.id), LEFT)
    expect([(await stored(first.id)).state, (await stored(second.id)).state]).toEqual(['accepted', 'delivered'])
    await over('practice')
  })

  it('is heard of before anybody here has noted that it was handed over, from the carrier of its line alone', async () => {
    const { id } = await sent()
    const report = { id: uuid(), at: LEFT, kind: 'delivered' as const, ref: uuid(), key: id, code: null }
    await takeEvent('one wire', report, LEFT)
    expect((await stored(id)).state).toBe('waiting')
    await takeEvent('practice', { ...report, id: uuid() }, LEFT)
    expect(await stored(id)).toMatchObject({ state: 'delivered', carrier: 'practice' })
  })

  it('of a text for a line of another carrier is taken by nobody', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    await takeEvent(
      'one wire',
      { id: uuid(), at: DAY, kind: 'received', ref: uuid(), from: e164, to: firm.portland.e164, text: 'Not yours to bring' },
      DAY,
    )
    expect((await readTimeline(firm.ada, recordId)).entries.filter(({ kind }) => kind === 'text-in')).toEqual([])
  })
})

describe('a carrier whose protocol has less', () => {
  it('takes texts without a list of prices, and says what they cost later, or never', async () => {
    plainCarrier('unpriced')
    await fetchPrices(carrierNamed('unpriced'))
    await over('unpriced')
    const { id, recordId } = await sent()
    await drain(LEFT)
    const shown = async () => (await readTimeline(firm.ada, recordId)).entries.find(({ kind }) => kind === 'text-out')!.message
    expect(await shown()).toMatchObject({ state: 'accepted', parts: 1, costMicros: null })
    const charge = { parts: 2, costMicros: 9_000, currency: 'USD' }
    expect(await takeEvent('unpriced', { id: uuid(), at: LEFT, kind: 'charged', ref: '1', key: null, charge }, LEFT)).toBe(true)
    expect(await takeEvent('unpriced', { id: uuid(), at: LEFT, kind: 'charged', ref: 'none of ours', key: null, charge }, LEFT)).toBe(false)
    expect(await shown()).toMatchObject(charge)
    await over('practice')
    expect((await stored(id)).carrier).toBe('unpriced')
  })

  it('that has prices, and none for a country, texts nobody there', async () => {
    plainCarrier('priced', { prices: async () => ({ prices: [], mostParts: 1, mostPictures: 0, mostPictureBytes: 0 }) })
    await over('priced')
    await expect(sent()).rejects.toMatchObject(problem(422, { fields: { lineId: expect.stringContaining('no price') } }))
    await over('practice')
  })

  it('tells over a connection that it keeps open, and may acknowledge what is committed', async () => {
    let told: (one: unknown) => Promise<void> = async () => {}
    let open = true
    plainCarrier('session', { session: { start: (tell) => {
      told = tell
      return async () => void (open = false)
    } } })
    const stop = openSessions([carrierNamed('session'), carrierNamed('practice')], () => DAY)
    await over('session')
    const { recordId, e164 } = await makeLead(firm.ada)
    await told({ id: uuid(), at: DAY, kind: 'received', ref: uuid(), from: e164, to: firm.portland.e164, text: 'Over the wire' })
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({ kind: 'text-in', words: 'Over the wire' })
    await expect(
      told({ id: uuid(), at: DAY, kind: 'charged', ref: 'unknown', key: null, charge: { parts: 1, costMicros: 1, currency: 'USD' } }),
    ).rejects.toThrow('told again')
    await stop()
    expect(open).toBe(false)
    await over('practice')
  })

  it('has no address at which anybody could speak for it', async () => {
    plainCarrier('no webhook')
    registerCarrier({ ...carrierNamed('practice'), name: 'hooked', webhook: { isSigned: () => false } })
    const { url, close } = await serve([{ method: 'POST', path: '/carriers/:carrier', schemas: {}, handler: events }])
    const ask = async (carrier: string) =>
      (await fetch(`${url}/carriers/${encodeURIComponent(carrier)}`, { method: 'POST', body: '{}' })).status
    expect([await ask('no webhook'), await ask('nobody'), await ask('hooked')]).toEqual([404, 404, 401])
    await close()
  })
})

describe('a list of prices', () => {
  it('takes the place of the one before, of its own carrier alone', async () => {
    const before = await tx(database => database.select().from(carrierPrice).where(eq(carrierPrice.carrier, 'practice')))
    const price = { country: 'US', microsPerPart: 5_000, microsPerPicture: null, currency: 'USD' }
    plainCarrier('listed', { prices: async () => ({ prices: [price], mostParts: 3, mostPictures: 0, mostPictureBytes: 0 }) })
    for (let turn = 0; turn < 2; turn++) await fetchPrices(carrierNamed('listed'))
    expect(await tx(database => database.select().from(carrierPrice).where(eq(carrierPrice.carrier, 'listed')))).toMatchObject([price])
    expect(await tx(database => database.select().from(carrierPrice).where(eq(carrierPrice.carrier, 'practice')))).toEqual(before)
  })
})

describe('a carrier that cannot be reached', () => {
  it('is said to leads of its lines, for as long as it is away, and told when it goes and comes back', async () => {
    let state: CarrierState = { is: 'connected', since: DAY.getTime(), why: null }
    fakeCarrier('harbour')
    carrierRegistered('harbour')!.state = () => state
    await tx(database => database.update(line).set({ carrier: 'harbour' }).where(eq(line.id, firm.portland.id)))
    const heard: string[] = []
    const stop = listen(firm.odile, ({ kind }) => void (kind === 'carriers' && heard.push(kind)))
    const away = async (asker = firm.odile) => (await readToday(asker, DAY)).away
    await tellOfAway()
    expect(await away()).toEqual([])
    state = { is: 'away', since: DAY.getTime(), why: 'It closed the connection.' }
    await tellOfAway()
    await tellOfAway()
    expect(await away()).toEqual([{ title: 'The carrier “harbour”', since: DAY.getTime(), why: 'It closed the connection.', lines: ['Portland line'] }])
    // a rep reads it at the composer
    expect(await away(firm.ada)).toEqual([])
    state = { is: 'connected', since: DAY.getTime(), why: null }
    await tellOfAway()
    expect([await away(), heard]).toEqual([[], ['carriers', 'carriers']])
    stop()
    await tx(database => database.update(line).set({ carrier: 'practice' }).where(eq(line.id, firm.portland.id)))
  })
})
