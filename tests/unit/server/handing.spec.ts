import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { HANDING_RINGS_MS } from '~~/core/call/handing'
import { dial } from '~~/server/calling/dial'
import { handCall, stepOfHanding } from '~~/server/calling/handings/hand'
import { toWhom } from '~~/server/calling/handings/to-whom'
import { myCalls } from '~~/server/calling/mine'
import { putAway } from '~~/server/calling/notes'
import { tx } from '~~/server/db/door'
import { call, callHanding } from '~~/server/db/schema'
import { readTimeline } from '~~/server/timeline/read'
import { dialForm, handForm } from '~~/shared/schemas/calling'
import type { HandingWay } from '~~/core/call/handing'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

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

async function talking() {
  const lead = await makeLead(firm.ada)
  const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
  await dial(firm.ada, form, DAY)
  await exchange.tell(form.id, { kind: 'answered', at: DAY.getTime() + 4_000, by: 'person' })
  return { ...lead, callId: form.id }
}
const toMika = (way: HandingWay) => handForm.validateSync({ id: uuid(), toId: firm.mika.id, way })
const shelf = async (who: Firm['ada'], callId: string) => (await myCalls(who, later(DAY, 20_000))).find(({ id }) => id === callId)
const handingOf = async (callId: string) => (await tx(database => database.select().from(callHanding).where(eq(callHanding.callId, callId)))).map(({ state }) => state)

describe('handing a call over', () => {
  it('is offered to those who answer its line, and says who is on a call', async () => {
    const { callId } = await talking()
    const other = await makeLead(firm.odile)
    await dial(firm.odile, dialForm.validateSync({ id: uuid(), phoneId: other.phoneId, lineId: firm.portland.id }), DAY)
    const all = await toWhom(firm.ada, callId)
    expect(all.map(({ id, busy }) => [id, busy])).toEqual(expect.arrayContaining([[firm.mika.id, null], [firm.odile.id, 'on-a-call']]))
    expect(all.map(({ id }) => id)).not.toContain(firm.ada.id)
    // recruiting does not answer that line
    expect(all.map(({ id }) => id)).not.toContain(firm.noor.id)
    await expect(toWhom(firm.mika, callId)).rejects.toMatchObject(problem(404))
  })

  it('goes straight: whoever calls waits on hold until the colleague takes it, and is the colleague’s from then on', async () => {
    const { callId, recordId } = await talking()
    await handCall(firm.ada, callId, toMika('straight'), DAY)
    expect(exchange.ordered.at(-1)?.order).toBe('hold')
    expect((await shelf(firm.mika, callId))?.handing).toMatchObject({ state: 'asked', toMe: true, from: { firstName: firm.ada.firstName } })
    expect((await shelf(firm.ada, callId))?.handing).toMatchObject({ state: 'asked', toMe: false })
    await stepOfHanding(firm.mika, callId, 'take', later(DAY, 5_000))
    expect(exchange.seated).toEqual([`${firm.mika.id} on`, `${firm.ada.id} off`])
    expect(exchange.ordered.at(-1)?.order).toBe('resume')
    expect([(await shelf(firm.mika, callId))?.mine, await shelf(firm.ada, callId)]).toEqual([true, undefined])
    const [entry] = (await readTimeline(firm.odile, recordId)).entries.filter(({ call: of }) => of?.id === callId)
    expect(entry!.call!.handed).toMatchObject([{ from: firm.ada.firstName, to: firm.mika.firstName, at: later(DAY, 5_000).getTime() }])
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
    await expect(putAway(firm.ada, callId, DAY)).rejects.toMatchObject(problem(404))
    await putAway(firm.mika, callId, DAY)
  })

  it('after a word: both are on it while whoever calls waits, then it is given, or taken back', async () => {
    const { callId } = await talking()
    await handCall(firm.ada, callId, toMika('after-a-word'), DAY)
    await stepOfHanding(firm.mika, callId, 'take', DAY)
    expect([exchange.seated, exchange.ordered.at(-1)?.order, (await shelf(firm.ada, callId))?.mine]).toEqual([[`${firm.mika.id} on`], 'hold', true])
    await stepOfHanding(firm.ada, callId, 'give', DAY)
    expect([exchange.seated.at(-1), exchange.ordered.at(-1)?.order, (await shelf(firm.mika, callId))?.mine]).toEqual([`${firm.ada.id} off`, 'resume', true])

    const second = await talking()
    await expect(handCall(firm.ada, second.callId, toMika('after-a-word'), DAY)).rejects.toMatchObject(problem(422, { fields: { toId: expect.stringMatching(/is on a call/) } }))
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
    await handCall(firm.ada, second.callId, toMika('after-a-word'), DAY)
    await stepOfHanding(firm.mika, second.callId, 'take', DAY)
    await stepOfHanding(firm.ada, second.callId, 'take-back', DAY)
    expect([exchange.seated.at(-1), exchange.ordered.at(-1)?.order]).toEqual([`${firm.mika.id} off`, 'resume'])
    expect([await shelf(firm.mika, second.callId), (await shelf(firm.ada, second.callId))?.handing]).toEqual([undefined, null])
  })

  it('comes back where the colleague will not have it, or does not take it in time; whoever calls waits until then', async () => {
    const { callId } = await talking()
    await handCall(firm.ada, callId, toMika('straight'), DAY)
    await stepOfHanding(firm.mika, callId, 'refuse', DAY)
    expect([(await shelf(firm.ada, callId))?.handing, exchange.ordered.at(-1)?.order, await handingOf(callId)]).toEqual([null, 'hold', ['back']])
    await handCall(firm.ada, callId, toMika('straight'), DAY)
    await drain(later(DAY, HANDING_RINGS_MS - 1))
    expect(await handingOf(callId)).toEqual(['back', 'asked'])
    await drain(later(DAY, HANDING_RINGS_MS))
    expect(await handingOf(callId)).toEqual(['back', 'back'])
    await expect(stepOfHanding(firm.mika, callId, 'take', later(DAY, HANDING_RINGS_MS + 1))).rejects.toMatchObject(problem(404))
  })

  it('is over when whoever calls hangs up first, and one that was taken does not run out', async () => {
    const first = await talking()
    await handCall(firm.ada, first.callId, toMika('after-a-word'), DAY)
    await stepOfHanding(firm.mika, first.callId, 'take', DAY)
    await drain(later(DAY, HANDING_RINGS_MS))
    expect(await handingOf(first.callId)).toEqual(['together'])
    await exchange.tell(first.callId, { kind: 'ended', at: DAY.getTime() + 30_000, why: 'hung-up', side: 'them' })
    expect([await handingOf(first.callId), await shelf(firm.mika, first.callId), (await shelf(firm.ada, first.callId))?.mine]).toEqual([['over'], undefined, true])
  })

  it('is not taken by somebody who has a call by now, and not begun where whoever calls cannot be put on hold', async () => {
    const { callId } = await talking()
    await handCall(firm.ada, callId, toMika('straight'), DAY)
    const lead = await makeLead(firm.mika)
    const own = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
    await dial(firm.mika, own, DAY)
    await expect(stepOfHanding(firm.mika, callId, 'take', DAY)).rejects.toMatchObject(problem(409, { type: 'on-a-call' }))
    await exchange.tell(own.id, { kind: 'ended', at: DAY.getTime() + 1, why: 'busy', side: 'them' })
    await stepOfHanding(firm.mika, callId, 'take', DAY)
    const other = await talking()
    exchange.refuseNextOrder('not-now')
    await expect(handCall(firm.ada, other.callId, handForm.validateSync({ id: uuid(), toId: firm.odile.id, way: 'straight' }), DAY)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    expect(await handingOf(other.callId)).toEqual([])
  })

  it('is begun once however often it is sent, and is nobody else’s to step', async () => {
    const { callId } = await talking()
    const form = toMika('straight')
    await handCall(firm.ada, callId, form, DAY)
    await handCall(firm.ada, callId, form, DAY)
    expect(await handingOf(callId)).toEqual(['asked'])
    await expect(handCall(firm.ada, callId, toMika('straight'), DAY)).rejects.toMatchObject(problem(409, { type: 'handing' }))
    for (const [who, step] of [[firm.odile, 'take'], [firm.mika, 'give'], [firm.ada, 'take'], [firm.mika, 'take-back']] as const) await expect(stepOfHanding(who, callId, step, DAY)).rejects.toMatchObject(problem(404))
    await expect(stepOfHanding(firm.ada, callId, 'give', DAY)).rejects.toMatchObject(problem(409))
  })

  it('says why it cannot be: nobody has answered, the exchange is away, the colleague does not answer the line', async () => {
    const lead = await makeLead(firm.ada)
    const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
    await dial(firm.ada, form, DAY)
    await expect(handCall(firm.ada, form.id, toMika('straight'), DAY)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    await exchange.tell(form.id, { kind: 'answered', at: DAY.getTime(), by: 'person' })
    await expect(handCall(firm.ada, form.id, handForm.validateSync({ id: uuid(), toId: firm.noor.id, way: 'straight' }), DAY)).rejects.toMatchObject(problem(422, { fields: { toId: expect.stringMatching(/does not answer that line/) } }))
    exchange.refuseNextOrder('unreachable')
    await expect(handCall(firm.ada, form.id, toMika('straight'), DAY)).rejects.toMatchObject(problem(409, { type: 'exchange-away' }))
    expect(await handingOf(form.id)).toEqual([])
  })
})
