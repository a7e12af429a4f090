import { v7 as uuid } from 'uuid'
import { callState } from '~~/core/call/facts'
import { dial } from '~~/server/calling/dial'
import { readHowICall, saveHowICall } from '~~/server/calling/how-i-call'
import { myCalls } from '~~/server/calling/mine'
import { rateCall } from '~~/server/calling/notes'
import { orderCall, sendTones } from '~~/server/calling/orders'
import { writeConsent } from '~~/server/consent/ledger'
import { tx } from '~~/server/db/door'
import { audit, call } from '~~/server/db/schema'
import { readTimeline } from '~~/server/timeline/read'
import { dialForm, howICallForm, ratingForm, tonesForm } from '~~/shared/schemas/calling'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, NIGHT, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let exchange: ReturnType<typeof fakeExchange>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => {
  exchange = fakeExchange()
  fakeCarrier()
})
// nobody stays on a call that a test has left
afterEach(() => tx(database => database.update(call).set({ endedAt: DAY, endWhy: 'hung-up', endSide: 'us' })))

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const how = (values: object) =>
  howICallForm.validateSync({ callsWith: 'own-phones', phones: [{ label: 'desk', number: '503 555 0150' }], ...values })
const dialled = (values: object) => dialForm.validateSync({ id: uuid(), ...values })
const detail = async (id: string) => (await myCalls(firm.ada, later(DAY, 20_000))).find(one => one.id === id)!

describe('how I call', () => {
  it('is kept for me alone, with my telephones as they can be dialled, and noted', async () => {
    expect(await readHowICall(firm.ada)).toEqual({ callsWith: 'browser', phones: [] })
    await saveHowICall(
      firm.ada,
      how({
        phones: [
          { label: 'desk', number: '503 555 0150' },
          { label: 'mobile', number: '+44 7700 900151' },
        ],
      }),
      DAY,
    )
    expect(await readHowICall(firm.ada)).toEqual({
      callsWith: 'own-phones',
      phones: [
        { label: 'desk', e164: '+15035550150' },
        { label: 'mobile', e164: '+447700900151' },
      ],
    })
    expect(await readHowICall(firm.mika)).toEqual({ callsWith: 'browser', phones: [] })
    expect((await tx(database => database.select().from(audit))).map(({ action }) => action)).toContain('own-phones-changed')
  })

  it.each([
    [{ phones: [{ label: 'desk', number: '503 55' }] }, 'phones[0].number'],
    [{ phones: [{ label: 'desk', number: '503 555 0118' }] }, 'phones[0].number'],
    [{ phones: [{ label: 'desk', number: '503 555 0150' }, { label: 'again', number: '+1 503-555-0150' }] }, 'phones[1].number'],
    [{ phones: [] }, 'callsWith'],
  ])('says what is wrong with %j, and keeps what was', async (values, field) => {
    const before = await readHowICall(firm.ada)
    await expect(saveHowICall(firm.ada, how(values), DAY)).rejects.toMatchObject(problem(422, { fields: { [field]: expect.any(String) } }))
    expect(await readHowICall(firm.ada)).toEqual(before)
  })

  it('rings my telephones before the other one, and the call says so', async () => {
    await saveHowICall(firm.ada, how({}), DAY)
    const lead = await makeLead(firm.ada)
    const form = dialled({ phoneId: lead.phoneId, lineId: firm.portland.id })
    await dial(firm.ada, form, DAY)
    expect(exchange.dialled.at(-1)).toMatchObject({ to: lead.e164, ringFirst: ['+15035550150'], desk: firm.ada.id })
    const states = []
    for (const event of [{ kind: 'own-ringing', at: 1 }, { kind: 'own-answered', at: 2 }, { kind: 'ringing', at: 3 }] as const) {
      await exchange.tell(form.id, { ...event, at: DAY.getTime() + event.at })
      states.push(callState((await detail(form.id)).facts))
    }
    expect(states).toEqual(['own-phone', 'dialling', 'ringing'])
    await saveHowICall(firm.ada, how({ callsWith: 'browser' }), DAY)
    await tx(database => database.update(call).set({ endedAt: DAY }))
    await dial(firm.ada, dialled({ phoneId: lead.phoneId, lineId: firm.portland.id }), DAY)
    expect(exchange.dialled.at(-1)!.ringFirst).toEqual([])
  })
})

describe('a call that comes in', () => {
  const rings = async () => {
    const { e164 } = await makeLead(firm.ada)
    return { e164, ref: await exchange.ring(e164, firm.portland.e164, DAY) }
  }

  it('rings on own telephones along with the browser, and whoever picks theirs up has it', async () => {
    await saveHowICall(firm.mika, how({ phones: [{ label: 'desk', number: '503 555 0151' }, { label: 'bike', number: '503 555 0152' }] }), DAY)
    const { e164, ref } = await rings()
    await drain(DAY)
    const phones = ['+15035550151', '+15035550152'].map(number => ({ number, desk: firm.mika.id }))
    expect(exchange.rungAlong).toEqual([{ ref, phones, record: false }])
    // who presses in the browser meanwhile is told by the exchange that somebody else was quicker
    const ringing = (await myCalls(firm.ada, DAY)).find(({ remote }) => remote === e164)!
    exchange.refuseNextOrder()
    await exchange.taken(ref, firm.mika.id, DAY)
    await expect(orderCall(firm.ada, ringing.id, 'answer', DAY)).rejects.toMatchObject(problem(409))
    await exchange.tellOf(ref, { kind: 'answered', at: DAY.getTime() + 2_000, by: 'person' })
    expect((await myCalls(firm.mika, DAY)).find(({ id }) => id === ringing.id)).toMatchObject({ mine: true, facts: { answeredBy: 'person' } })
    await exchange.tellOf(ref, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
  })

  it('rings on none of somebody who is on a call, has declined it, calls in the browser or does not answer the line', async () => {
    await saveHowICall(firm.noor, how({ phones: [{ label: 'desk', number: '902 555 0151' }] }), DAY)
    const { e164, ref } = await rings()
    const ringing = (await myCalls(firm.mika, DAY)).find(({ remote }) => remote === e164)!
    await orderCall(firm.mika, ringing.id, 'decline', DAY)
    // with Ada it rings on in the browser
    await drain(DAY)
    expect(exchange.rungAlong).toEqual([])
    await exchange.tellOf(ref, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'no-answer', side: 'network' })
    await saveHowICall(firm.mika, how({ callsWith: 'browser' }), DAY)
    await rings()
    await drain(DAY)
    expect(exchange.rungAlong).toEqual([])
  })
})

describe('calling a number that somebody types', () => {
  it('calls one that is on no record, in the hours of where it is, and writes it down', async () => {
    await expect(dial(firm.ada, dialled({ number: '808 555 0177' }), NIGHT)).rejects.toMatchObject(problem(409, { type: 'night' }))
    const form = dialled({ number: '(808) 555-0177' })
    await dial(firm.ada, form, DAY)
    expect(exchange.dialled.at(-1)).toMatchObject({ to: '+18085550177' })
    expect(await detail(form.id)).toMatchObject({ remote: '+18085550177', record: null, mine: true })
  })

  it('finds whose it is among those I may see, and shows it with all who have it', async () => {
    const mine = await makeLead(firm.ada, { firstName: 'Mine' }, '808 555 0178')
    const foreign = await makeLead(firm.noor, { firstName: 'Foreign' }, '808 555 0178')
    const form = dialled({ number: '808 555 0178' })
    await dial(firm.ada, form, DAY)
    expect((await detail(form.id)).record).toMatchObject({ id: mine.recordId })
    // Noor sees that her candidate was called, if the line is hers to read; the entry is on both
    for (const [who, { recordId }] of [
      [firm.mika, mine],
      [firm.rafe, foreign],
    ] as const)
      expect((await readTimeline(who, recordId)).entries.map(({ kind }) => kind)).toContain('call-out')
  })

  it('says why it is not called: no number, nothing typed, no calls wanted there', async () => {
    await expect(dial(firm.ada, dialled({ number: '911' }), DAY)).rejects.toMatchObject(
      problem(422, { fields: { number: expect.stringMatching(/cannot be a telephone number/) } }),
    )
    await expect(dial(firm.ada, dialled({}), DAY)).rejects.toMatchObject(problem(422, { fields: { phoneId: 'Choose a number to call.' } }))
    await writeConsent({ e164: '+18085550179', at: DAY, kind: 'refused', covers: 'calls', how: 'by-hand', words: null })
    await expect(dial(firm.ada, dialled({ number: '808 555 0179' }), DAY)).rejects.toMatchObject(problem(409, { type: 'no-calls' }))
    expect(exchange.dialled).toEqual([])
  })
})

describe('during a call', () => {
  async function talking() {
    const { phoneId, recordId } = await makeLead(firm.ada)
    const form = dialled({ phoneId, lineId: firm.portland.id })
    await dial(firm.ada, form, DAY)
    await exchange.tell(form.id, { kind: 'answered', at: DAY.getTime() + 1_000, by: 'person' })
    return { callId: form.id, recordId }
  }

  it('sends tones along my call, and keeps them nowhere', async () => {
    const { callId } = await talking()
    await sendTones(firm.ada, callId, '12#')
    expect(exchange.sent).toEqual([{ ref: `call-${callId}`, tones: '12#' }])
    expect(JSON.stringify(await tx(database => database.select().from(call)))).not.toContain('12#')
    await expect(sendTones(firm.mika, callId, '1')).rejects.toMatchObject(problem(404))
    exchange.refuseNextOrder()
    await expect(sendTones(firm.ada, callId, '1')).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    for (const tones of ['', '12a', '1'.repeat(33)]) expect(() => tonesForm.validateSync({ tones })).toThrow()
  })

  it('is rated by whoever had it, and the rating is on the timeline until it is taken away', async () => {
    const { callId, recordId } = await talking()
    const shown = async () => (await readTimeline(firm.mika, recordId)).entries.find(({ call }) => call?.id === callId)!.call!.rating
    await rateCall(firm.ada, callId, 4)
    expect(await shown()).toBe(4)
    await rateCall(firm.ada, callId, null)
    expect(await shown()).toBeNull()
    await expect(rateCall(firm.mika, callId, 1)).rejects.toMatchObject(problem(404))
    for (const rating of [0, 6, 1.5, undefined]) expect(() => ratingForm.validateSync({ rating })).toThrow()
  })
})
