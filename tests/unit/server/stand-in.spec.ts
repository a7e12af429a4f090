import { and, eq, sql } from 'drizzle-orm'
import { ask, tx } from '~~/server/db/door'
import { carrierPrice, conversation, line, message, moneyAccount, moneyEntry, moneyHold } from '~~/server/db/schema'
import { carrierRegistered } from '~~/server/carriers/registry'
import type { HandOverAnswer } from '~~/server/carriers/port'
import { changeLine, listLines } from '~~/server/texting/line-edit'
import { linesOf } from '~~/server/texting/lines'
import { sendText } from '~~/server/texting/send'
import { receiveText } from '~~/server/texting/receive'
import { AWAY_MINUTES } from '~~/core/lines/stand-in'
import { readTimeline } from '~~/server/timeline/read'
import { lineForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'
import { v7 as uuid } from 'uuid'

useDatabase()
const AWAY: HandOverAnswer = { kind: 'try-later', afterMs: 1_000, certain: true, code: 'carrier-unreachable' }
const LOST: HandOverAnswer = { ...AWAY, certain: false, code: 'answer-lost' }
const [FIRST, AFTER] = [later(DAY, 10_000), later(DAY, 10_000 + AWAY_MINUTES * 60_000)]

let firm: Firm
let harbour: ReturnType<typeof fakeCarrier>
let practice: ReturnType<typeof fakeCarrier>
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  fakeCarrier('harbour')
  await tx(async (database) => {
    await database.update(line).set({ carrier: 'harbour' }).where(eq(line.id, firm.second.id))
    await database.insert(carrierPrice).values([
      { carrier: 'practice', country: 'US', microsPerPart: 8_000, microsPerPicture: 20_000, currency: 'USD', mostParts: 10, mostPictures: 3, mostPictureBytes: 600_000 },
      { carrier: 'harbour', country: 'US', microsPerPart: 9_000, microsPerPicture: null, currency: 'USD', mostParts: 10, mostPictures: 0, mostPictureBytes: 0 },
    ]).onConflictDoNothing()
  })
  await standIn(firm.second.id)
})
beforeEach(() => {
  practice = fakeCarrier()
  harbour = fakeCarrier('harbour')
})

const problem = (fields: object) => ({ details: { status: 422, fields } })
const shown = async (id: string) => (await listLines(firm.rafe)).find(one => one.id === id)!
const standIn = async (standInId: string | null, of = firm.portland.id) =>
  changeLine(firm.rafe, of, lineForm.validateSync({ ...await shown(of), standInId }), DAY)
const stored = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!
const held = async (id: string) => (await tx(database => database.select().from(moneyHold).where(eq(moneyHold.messageId, id))))[0]

/** A text from the Portland line whose carrier answers so twice, five minutes apart. */
async function sentWhile(answer: HandOverAnswer, values: object = {}) {
  const lead = await makeLead(firm.ada)
  const form = textTo(lead.phoneId, firm.portland, values)
  await sendText(firm.ada, form, DAY)
  practice.next(answer)
  practice.next(answer)
  await drain(FIRST)
  await drain(AFTER)
  return { ...lead, id: form.id }
}

describe('a line that stands in', () => {
  it('sends what the carrier of another one could not be asked for, five minutes on and no sooner', async () => {
    const { id, recordId, e164 } = await sentWhile(AWAY, { text: 'Your bike is ready.' })
    expect(practice.asked).toHaveLength(2)
    expect(harbour.asked).toMatchObject([{ key: id, from: firm.second.e164, to: e164, text: 'Your bike is ready.' }])
    expect(await stored(id)).toMatchObject({ state: 'accepted', carrier: 'harbour', meantLineId: firm.portland.id })
    // it is said on the timeline, and what is answered comes to the line that it left from
    const [entry] = (await readTimeline(firm.ada, recordId)).entries.filter(({ message }) => message?.id === id)
    expect(entry!.message).toMatchObject({ line: { name: 'Minneapolis line' }, meantLine: 'Portland line' })
    await receiveText('harbour', { id: uuid(), kind: 'received', ref: uuid(), at: AFTER, from: e164, to: firm.second.e164, text: 'Lovely' }, AFTER)
    const columns = { lineId: conversation.lineId, bulkOnly: conversation.bulkOnly, cameIn: conversation.cameIn }
    const talks = await tx(database => database.select(columns).from(conversation)
      .where(eq(conversation.remote, e164)))
    // on the other one nothing was ever said: it lies in nobody's way
    expect(talks).toEqual(expect.arrayContaining([
      { lineId: firm.portland.id, bulkOnly: true, cameIn: false }, { lineId: firm.second.id, bulkOnly: false, cameIn: true },
    ]))
  })

  it('sends at once what comes while the carrier has been away for as long already', async () => {
    carrierRegistered('practice')!.state = () => ({ is: 'away', since: later(FIRST, -AWAY_MINUTES * 60_000).getTime(), why: null })
    const lead = await makeLead(firm.ada)
    const forms = [textTo(lead.phoneId, firm.portland, { text: 'One' }), textTo(lead.phoneId, firm.portland, { text: 'Two' })]
    for (const form of forms) await sendText(firm.ada, form, DAY)
    practice.next(AWAY)
    practice.next(AWAY)
    await drain(FIRST)
    expect(harbour.asked.map(({ text }) => text)).toEqual(['One', 'Two'])
  })

  it('is paid by its own price, once, and the sum of the ledger is the balance', async () => {
    await tx(database => database.update(moneyAccount).set({ prepaid: true, balanceMicros: sql`${moneyAccount.balanceMicros} + 1000000` }))
    const paid = { id: uuid(), at: DAY, kind: 'paid-in' as const, currency: 'USD', micros: 1_000_000, enteredBy: firm.rafe.id }
    await tx(database => database.insert(moneyEntry).values(paid))
    harbour.next({ kind: 'accepted', ref: 'h-1', charge: null })
    const { id } = await sentWhile(AWAY)
    const [entry] = await tx(database => database.select().from(moneyEntry).where(and(eq(moneyEntry.messageId, id), eq(moneyEntry.kind, 'text'))))
    expect(entry).toMatchObject({ micros: -9_000, lineId: firm.second.id })
    const { rows: [sums] } = await ask<{ balance: number, held: number, entries: number, holds: number }>(sql`
      select (select balance_micros::float8 from ${moneyAccount}) as balance, (select held_micros::float8 from ${moneyAccount}) as held,
        (select sum(micros)::float8 from ${moneyEntry}) as entries, (select coalesce(sum(micros), 0)::float8 from ${moneyHold}) as holds`)
    expect([sums!.balance, sums!.held]).toEqual([sums!.entries, sums!.holds])
  })

  it('sends nothing that cannot be paid over it: that waits, and what was held for it stays held', async () => {
    const lead = await makeLead(firm.ada)
    const form = textTo(lead.phoneId, firm.portland)
    await sendText(firm.ada, form, DAY)
    const before = await held(form.id)
    expect(before).toMatchObject({ micros: 8_000, lineId: firm.portland.id })
    await tx(database => database.update(moneyAccount).set({ balanceMicros: sql`${moneyAccount.heldMicros} + 500` }))
    practice.next(AWAY)
    practice.next(AWAY)
    await drain(FIRST)
    await drain(AFTER)
    expect([harbour.asked.length, (await stored(form.id)).state, await held(form.id)]).toEqual([0, 'waiting', before])
    await tx(database => database.update(moneyAccount).set({ prepaid: false }))
    await drain(later(AFTER, 60_000))
    expect(await stored(form.id)).toMatchObject({ state: 'accepted', carrier: 'practice', meantLineId: null })
  })

  it.each<[string, HandOverAnswer, object, () => Promise<unknown>]>([
    ['may have been taken', LOST, {}, async () => {}],
    ['nobody stands in for', AWAY, {}, () => standIn(null)],
    ['another one stands in for that is not in use', AWAY, {}, () => tx(database => database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.second.id)))],
    ['another one stands in for whose carrier is away too', AWAY, {}, async () => {
      carrierRegistered('harbour')!.state = () => ({ is: 'away', since: 1, why: null })
    }],
  ])('does not send what %s', async (_, answer, values, but) => {
    await but()
    const { id } = await sentWhile(answer, values)
    expect(harbour.asked).toEqual([])
    expect(await stored(id)).toMatchObject({ meantLineId: null })
    await tx(database => database.update(line).set({ state: 'active' }).where(eq(line.id, firm.second.id)))
    await standIn(firm.second.id)
    await drain(later(AFTER, 3_600_000))
  })

  it('sends nothing after a STOP, also none that was on its way to it', async () => {
    const lead = await makeLead(firm.ada)
    const form = textTo(lead.phoneId, firm.portland)
    await sendText(firm.ada, form, DAY)
    practice.next(AWAY)
    practice.next(AWAY)
    await drain(FIRST)
    await receiveText('harbour', { id: uuid(), kind: 'received', ref: uuid(), at: FIRST, from: lead.e164, to: firm.second.e164, text: 'STOP' }, FIRST)
    await drain(AFTER)
    expect(harbour.asked.filter(({ key }) => key === form.id)).toEqual([])
    expect(await stored(form.id)).toMatchObject({ state: 'held' })
  })

  it('is one of the same country, on another carrier, and not private', async () => {
    await expect(standIn(firm.portland.id)).rejects.toMatchObject(problem({ standInId: expect.any(String) }))
    await expect(standIn(firm.halifax.id)).rejects.toMatchObject(problem({ standInId: expect.stringContaining('another country') }))
    await expect(standIn(firm.own.id)).rejects.toMatchObject(problem({ standInId: expect.stringContaining('private') }))
    await expect(standIn(firm.portland.id, firm.own.id)).rejects.toMatchObject(problem({ standInId: expect.stringContaining('private') }))
    await tx(database => database.update(line).set({ carrier: 'practice' }).where(eq(line.id, firm.second.id)))
    await expect(standIn(firm.second.id)).rejects.toMatchObject(problem({ standInId: expect.stringContaining('same carrier') }))
    await tx(database => database.update(line).set({ carrier: 'harbour' }).where(eq(line.id, firm.second.id)))
    expect((await linesOf(firm.ada)).find(({ id }) => id === firm.portland.id)).toMatchObject({ standIn: 'Minneapolis line' })
  })
})
