import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { TRANSFER_RINGS_MS } from '~~/core/call/transfer'
import { dial } from '~~/server/calling/dial'
import { transferCall, stepOfTransfer } from '~~/server/calling/transfers/transfer'
import { toWhom } from '~~/server/calling/transfers/to-whom'
import { myCalls } from '~~/server/calling/mine'
import { keepNotes, putAway } from '~~/server/calling/notes'
import { tx } from '~~/server/db/door'
import { call, callTransfer } from '~~/server/db/schema'
import { readTimeline } from '~~/server/timeline/read'
import { dialForm, transferForm } from '~~/shared/schemas/calling'
import type { TransferWay } from '~~/core/call/transfer'
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
const toMika = (way: TransferWay) => transferForm.validateSync({ id: uuid(), toId: firm.mika.id, way })
const shelf = async (who: Firm['ada'], callId: string) => (await myCalls(who, later(DAY, 20_000))).find(({ id }) => id === callId)
const transferOf = async (callId: string) =>
  (await tx(database => database.select().from(callTransfer).where(eq(callTransfer.callId, callId)))).map(({ state }) => state)

describe('transfer a call over', () => {
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
    await transferCall(firm.ada, callId, toMika('blind'), DAY)
    expect(exchange.ordered.at(-1)?.order).toBe('hold')
    expect((await shelf(firm.mika, callId))?.transfer).toMatchObject({
      state: 'asked',
      toMe: true,
      from: { firstName: firm.ada.firstName },
    })
    expect((await shelf(firm.ada, callId))?.transfer).toMatchObject({ state: 'asked', toMe: false })
    await stepOfTransfer(firm.mika, callId, 'take', later(DAY, 5_000))
    expect(exchange.seated).toEqual([`${firm.mika.id} on`, `${firm.ada.id} off`])
    expect(exchange.ordered.at(-1)?.order).toBe('resume')
    expect([(await shelf(firm.mika, callId))?.mine, await shelf(firm.ada, callId)]).toEqual([true, undefined])
    const [entry] = (await readTimeline(firm.odile, recordId)).entries.filter(({ call: of }) => of?.id === callId)
    expect(entry!.call!.transfers).toMatchObject([{ from: firm.ada.firstName, to: firm.mika.firstName, at: later(DAY, 5_000).getTime() }])
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
    await expect(putAway(firm.ada, callId, DAY)).rejects.toMatchObject(problem(404))
    await putAway(firm.mika, callId, DAY)
  })

  it('keeps the notes of both, each with whose they are', async () => {
    const { callId, recordId } = await talking()
    await keepNotes(firm.ada, callId, 'Wants a trial.')
    await transferCall(firm.ada, callId, toMika('blind'), DAY)
    await stepOfTransfer(firm.mika, callId, 'take', DAY)
    expect(await shelf(firm.mika, callId)).toMatchObject({ notes: '', othersNotes: [{ firstName: 'Ada', words: 'Wants a trial.' }] })
    await keepNotes(firm.mika, callId, 'Thursday it is.')
    // what was typed before the transfer may come after it
    await keepNotes(firm.ada, callId, 'Wants a trial. Two bikes.')
    const [entry] = (await readTimeline(firm.odile, recordId)).entries.filter(({ call: of }) => of?.id === callId)
    expect(entry!.words).toBe('Ada: Wants a trial. Two bikes.\n\nMika: Thursday it is.')
    await expect(keepNotes(firm.odile, callId, 'Mine')).rejects.toMatchObject(problem(404))
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
    await putAway(firm.mika, callId, DAY)
  })

  it('after a word: both are on it while whoever calls waits, then it is given, or taken back', async () => {
    const { callId } = await talking()
    await transferCall(firm.ada, callId, toMika('attended'), DAY)
    await stepOfTransfer(firm.mika, callId, 'take', DAY)
    expect([exchange.seated, exchange.ordered.at(-1)?.order, (await shelf(firm.ada, callId))?.mine]).toEqual([
      [`${firm.mika.id} on`],
      'hold',
      true,
    ])
    await stepOfTransfer(firm.ada, callId, 'give', DAY)
    expect([exchange.seated.at(-1), exchange.ordered.at(-1)?.order, (await shelf(firm.mika, callId))?.mine]).toEqual([
      `${firm.ada.id} off`,
      'resume',
      true,
    ])

    const second = await talking()
    await expect(transferCall(firm.ada, second.callId, toMika('attended'), DAY)).rejects.toMatchObject(
      problem(422, { fields: { toId: expect.stringMatching(/is on a call/) } }),
    )
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 9_000, why: 'hung-up', side: 'them' })
    await transferCall(firm.ada, second.callId, toMika('attended'), DAY)
    await stepOfTransfer(firm.mika, second.callId, 'take', DAY)
    await stepOfTransfer(firm.ada, second.callId, 'take-back', DAY)
    expect([exchange.seated.at(-1), exchange.ordered.at(-1)?.order]).toEqual([`${firm.mika.id} off`, 'resume'])
    expect([await shelf(firm.mika, second.callId), (await shelf(firm.ada, second.callId))?.transfer]).toEqual([undefined, null])
  })

  it('comes back where the colleague will not have it, or does not take it in time; whoever calls waits until then', async () => {
    const { callId } = await talking()
    await transferCall(firm.ada, callId, toMika('blind'), DAY)
    await stepOfTransfer(firm.mika, callId, 'refuse', DAY)
    expect([(await shelf(firm.ada, callId))?.transfer, exchange.ordered.at(-1)?.order, await transferOf(callId)]).toEqual([
      null,
      'hold',
      ['back'],
    ])
    await transferCall(firm.ada, callId, toMika('blind'), DAY)
    await drain(later(DAY, TRANSFER_RINGS_MS - 1))
    expect(await transferOf(callId)).toEqual(['back', 'asked'])
    await drain(later(DAY, TRANSFER_RINGS_MS))
    expect(await transferOf(callId)).toEqual(['back', 'back'])
    await expect(stepOfTransfer(firm.mika, callId, 'take', later(DAY, TRANSFER_RINGS_MS + 1))).rejects.toMatchObject(problem(404))
  })

  it('is over when whoever calls hangs up first, and one that was taken does not run out', async () => {
    const first = await talking()
    await transferCall(firm.ada, first.callId, toMika('attended'), DAY)
    await stepOfTransfer(firm.mika, first.callId, 'take', DAY)
    await drain(later(DAY, TRANSFER_RINGS_MS))
    expect(await transferOf(first.callId)).toEqual(['together'])
    await exchange.tell(first.callId, { kind: 'ended', at: DAY.getTime() + 30_000, why: 'hung-up', side: 'them' })
    expect([await transferOf(first.callId), await shelf(firm.mika, first.callId), (await shelf(firm.ada, first.callId))?.mine]).toEqual([
      ['over'],
      undefined,
      true,
    ])
  })

  it('is not taken by somebody who has a call by now, and not begun where whoever calls cannot be put on hold', async () => {
    const { callId } = await talking()
    await transferCall(firm.ada, callId, toMika('blind'), DAY)
    const lead = await makeLead(firm.mika)
    const own = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
    await dial(firm.mika, own, DAY)
    await expect(stepOfTransfer(firm.mika, callId, 'take', DAY)).rejects.toMatchObject(problem(409, { type: 'on-a-call' }))
    await exchange.tell(own.id, { kind: 'ended', at: DAY.getTime() + 1, why: 'busy', side: 'them' })
    await stepOfTransfer(firm.mika, callId, 'take', DAY)
    const other = await talking()
    exchange.refuseNextOrder('not-now')
    await expect(
      transferCall(firm.ada, other.callId, transferForm.validateSync({ id: uuid(), toId: firm.odile.id, way: 'blind' }), DAY),
    ).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    expect(await transferOf(other.callId)).toEqual([])
  })

  it('is begun once however often it is sent, and is nobody else’s to step', async () => {
    const { callId } = await talking()
    const form = toMika('blind')
    await transferCall(firm.ada, callId, form, DAY)
    await transferCall(firm.ada, callId, form, DAY)
    expect(await transferOf(callId)).toEqual(['asked'])
    await expect(transferCall(firm.ada, callId, toMika('blind'), DAY)).rejects.toMatchObject(problem(409, { type: 'transfer' }))
    for (const [who, step] of [
      [firm.odile, 'take'],
      [firm.mika, 'give'],
      [firm.ada, 'take'],
      [firm.mika, 'take-back'],
    ] as const)
      await expect(stepOfTransfer(who, callId, step, DAY)).rejects.toMatchObject(problem(404))
    await expect(stepOfTransfer(firm.ada, callId, 'give', DAY)).rejects.toMatchObject(problem(409))
  })

  it('says why it cannot be: nobody has answered, the exchange is away, the colleague does not answer the line', async () => {
    const lead = await makeLead(firm.ada)
    const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
    await dial(firm.ada, form, DAY)
    await expect(transferCall(firm.ada, form.id, toMika('blind'), DAY)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    await exchange.tell(form.id, { kind: 'answered', at: DAY.getTime(), by: 'person' })
    await expect(
      transferCall(firm.ada, form.id, transferForm.validateSync({ id: uuid(), toId: firm.noor.id, way: 'blind' }), DAY),
    ).rejects.toMatchObject(problem(422, { fields: { toId: expect.stringMatching(/does not answer that line/) } }))
    exchange.refuseNextOrder('unreachable')
    await expect(transferCall(firm.ada, form.id, toMika('blind'), DAY)).rejects.toMatchObject(problem(409, { type: 'exchange-away' }))
    expect(await transferOf(form.id)).toEqual([])
  })
})
