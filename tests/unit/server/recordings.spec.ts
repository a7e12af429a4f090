import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { dial } from '~~/server/calling/dial'
import { myCalls } from '~~/server/calling/mine'
import { orderCall } from '~~/server/calling/orders'
import { hearRecording, markRecording } from '~~/server/calling/recordings'
import { tx } from '~~/server/db/door'
import { audit, line, signIn } from '~~/server/db/schema'
import { readConversation, readShelf } from '~~/server/pages/shelf'
import { changeLine, listLines } from '~~/server/texting/line-edit'
import { readTimeline } from '~~/server/timeline/read'
import { madeUpSound } from '../../../practice/exchange/sound'
import { dialForm, markForm } from '~~/shared/schemas/calling'
import { lineForm } from '~~/shared/schemas/line'
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
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const setLine = (values: object) =>
  tx(database =>
    database
      .update(line)
      .set({
        records: false, ownerFirst: false, ringOrder: [], takeOrder: [], greeting: null, busyGreeting: null, ringSeconds: 25, hours: null,
        ...values,
      })
      .where(eq(line.id, firm.portland.id)),
  )

/** A talk of Ada's of six seconds, recorded. */
async function recordedTalk(sound = madeUpSound('talk', 6_000, 2)) {
  await setLine({ records: true })
  const lead = await makeLead(firm.ada)
  const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
  await dial(firm.ada, form, DAY)
  await exchange.tell(form.id, { kind: 'answered', at: DAY.getTime() + 1_000, by: 'person' })
  await exchange.tell(form.id, { kind: 'ended', at: DAY.getTime() + 7_000, why: 'hung-up', side: 'us' })
  await exchange.recorded(`call-${form.id}`, 'call', sound, DAY)
  await drain(DAY)
  const { entries } = await readTimeline(firm.mika, lead.recordId)
  return { ...lead, callId: form.id, recording: entries.find(({ kind }) => kind === 'call-out')!.call!.recording }
}

describe('a recording', () => {
  it('is asked for where the line says so, fetched, and stands with its shape on the timeline', async () => {
    const { recording } = await recordedTalk()
    expect(exchange.dialled).toMatchObject([{ record: true }])
    expect(recording).toMatchObject({ of: 'call', ms: 6_000, marks: [] })
    expect(recording!.peaks).toHaveLength(240)
    expect(Math.max(...recording!.peaks)).toBeGreaterThan(0.2)
    expect((await hearRecording(firm.ada, recording!.id, DAY)).equals(madeUpSound('talk', 6_000, 2))).toBe(true)
  })

  it('is heard by whoever had the talk and by their lead, and that is noted', async () => {
    const { recording } = await recordedTalk()
    await expect(hearRecording(firm.mika, recording!.id, DAY)).rejects.toMatchObject(problem(403))
    await expect(hearRecording(firm.noor, recording!.id, DAY)).rejects.toMatchObject(problem(404))
    await expect(hearRecording(firm.ada, uuid(), DAY)).rejects.toMatchObject(problem(404))
    await hearRecording(firm.odile, recording!.id, DAY)
    const heard = (await tx(database => database.select().from(audit).where(eq(audit.action, 'recording-heard')))).filter(
      ({ details }) => (details as { recordingId: string }).recordingId === recording!.id,
    )
    expect(heard.map(({ colleagueId }) => colleagueId)).toEqual([firm.odile.id])
  })

  it('takes notes at its moments, once each, and none behind its end', async () => {
    const { recording, recordId } = await recordedTalk()
    const mark = markForm.validateSync({ id: uuid(), atMs: 2_500, words: ' Asks for the price ' })
    await markRecording(firm.ada, recording!.id, mark, DAY)
    await markRecording(firm.ada, recording!.id, mark, DAY)
    await expect(markRecording(firm.ada, recording!.id, { ...mark, id: uuid(), atMs: 6_001 }, DAY)).rejects.toMatchObject(problem(422))
    await expect(markRecording(firm.mika, recording!.id, { ...mark, id: uuid() }, DAY)).rejects.toMatchObject(problem(403))
    const { entries } = await readTimeline(firm.mika, recordId)
    expect(entries.find(({ call }) => call)!.call!.recording!.marks).toEqual([
      { id: mark.id, atMs: 2_500, words: 'Asks for the price', colleague: 'Ada' },
    ])
  })

  it('is left where what came is no sound', async () => {
    expect((await recordedTalk(Buffer.from('RIFF, it says'))).recording).toBeNull()
    expect((await recordedTalk(Buffer.alloc(17_000_000))).recording).toBeNull()
  })
})

describe('a line that takes messages', () => {
  const rings = async (at = DAY) => {
    const lead = await makeLead(firm.ada)
    const ref = await exchange.ring(lead.e164, firm.portland.e164, at)
    return { ...lead, ref }
  }

  it('does so after it has rung for long enough, and the message waits for all who answer it', async () => {
    await setLine({ greeting: 'Please leave a message.', ringSeconds: 20 })
    const { ref, e164, recordId } = await rings()
    await drain(later(DAY, 19_000))
    expect(exchange.ordered).toEqual([])
    await drain(later(DAY, 20_000))
    expect(exchange.ordered).toEqual([{ ref, order: 'take-message', greeting: 'Please leave a message.' }])
    await exchange.tellOf(ref, { kind: 'answered', at: DAY.getTime() + 20_000, by: 'machine' })
    await exchange.tellOf(ref, { kind: 'ended', at: DAY.getTime() + 29_000, why: 'hung-up', side: 'them' })
    await exchange.recorded(ref, 'message', madeUpSound('message', 9_000, 1), DAY)
    await drain(later(DAY, 30_000))
    const waits = (await readShelf(firm.mika)).items.find(({ remote }) => remote === e164)!
    expect(waits).toMatchObject({ waitsFor: 'voicemail', waitsSince: DAY.getTime() + 29_000 })
    const { recording } = (await readConversation(firm.mika, waits.conversationId, DAY)).entries[0]!.call!
    expect(recording).toMatchObject({ of: 'message', ms: 9_000 })
    await hearRecording(firm.mika, recording!.id, DAY)
    await expect(hearRecording(firm.noor, recording!.id, DAY)).rejects.toMatchObject(problem(404))
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({ kind: 'call-in', call: { recording: { of: 'message' } } })
  })

  it('does so at once, with words of its own, while all who answer it talk', async () => {
    await setLine({ greeting: 'Please leave a message.', busyGreeting: 'All of us are talking.', ringSeconds: 20 })
    await tx(database => database.insert(signIn).values([firm.ada, firm.mika, firm.odile].map(({ id }) =>
      ({ tokenHash: `talks ${id}`, colleagueId: id, madeAt: DAY, endsAt: later(DAY, 3_600_000) }))))
    const talks = await Promise.all([firm.ada, firm.mika, firm.odile].map(async (who) => {
      const form = dialForm.validateSync({ id: uuid(), phoneId: (await makeLead(firm.ada)).phoneId, lineId: firm.portland.id })
      await dial(who, form, DAY)
      return form.id
    }))
    const { ref } = await rings()
    await drain(DAY)
    expect(exchange.ordered).toEqual([{ ref, order: 'take-message', greeting: 'All of us are talking.' }])
    // one of them is free again: it rings
    await exchange.tell(talks[0]!, { kind: 'ended', at: DAY.getTime() + 1, why: 'hung-up', side: 'us' })
    const again = await rings(later(DAY, 1_000))
    await drain(later(DAY, 2_000))
    expect(exchange.ordered).toHaveLength(1)
    for (const id of talks) await exchange.tell(id, { kind: 'ended', at: DAY.getTime() + 2, why: 'hung-up', side: 'us' })
    await exchange.tellOf(again.ref, { kind: 'ended', at: DAY.getTime() + 3_000, why: 'no-answer', side: 'network' })
    await tx(database => database.delete(signIn))
  })

  it('takes none of a call that a colleague has answered', async () => {
    await setLine({ greeting: 'Please leave a message.', ringSeconds: 20 })
    const { ref, e164 } = await rings()
    const ringing = (await myCalls(firm.mika, DAY)).find(({ remote }) => remote === e164)!
    await orderCall(firm.mika, ringing.id, 'answer', DAY)
    await exchange.tellOf(ref, { kind: 'answered', at: DAY.getTime() + 3_000, by: 'person' })
    await drain(later(DAY, 60_000))
    expect(exchange.ordered.map(({ order }) => order)).toEqual(['answer'])
    await exchange.tellOf(ref, { kind: 'ended', at: DAY.getTime() + 61_000, why: 'hung-up', side: 'us' })
  })

  it('takes them at once when it is closed, by its own clock', async () => {
    // a Wednesday, 10:00 in Portland
    await setLine({ greeting: 'We are closed.', hours: { opens: '10:30', closes: '18:00', days: [3] } })
    const closed = await rings()
    await drain(DAY)
    expect(exchange.ordered).toEqual([{ ref: closed.ref, order: 'take-message', greeting: 'We are closed.' }])
    await setLine({ greeting: 'We are closed.', hours: { opens: '10:00', closes: '18:00', days: [3] } })
    await rings()
    await drain(DAY)
    expect(exchange.ordered).toHaveLength(1)
  })

  it('rings first with the caller’s own colleague, where it says so, and then with all', async () => {
    await setLine({ ownerFirst: true })
    const { e164 } = await rings()
    const ringsWith = async (at: Date) =>
      (
        await Promise.all(
          [firm.ada, firm.mika].map(async asker =>
            (await myCalls(asker, at)).some(({ remote }) => remote === e164) ? asker.firstName : '',
          ),
        )
      ).join(' ')
    expect(await ringsWith(later(DAY, 9_999))).toBe('Ada ')
    expect(await ringsWith(later(DAY, 10_000))).toBe('Ada Mika')
  })
})

it('rings with colleagues in the line’s order, passes over who talks, declines or is not there, and then with all', async () => {
  await setLine({ ownerFirst: true, ringOrder: [firm.odile.id, firm.mika.id, firm.ada.id] })
  await tx(database => database.insert(signIn).values([firm.ada, firm.mika].map(({ id }) =>
    ({ tokenHash: `in turn ${id}`, colleagueId: id, madeAt: DAY, endsAt: later(DAY, 3_600_000) }))))
  const { e164 } = await makeLead(firm.ada)
  const ref = await exchange.ring(e164, firm.portland.e164, DAY)
  const at = async (when: Date) => {
    await drain(when)
    const rings = await Promise.all([firm.ada, firm.mika, firm.odile].map(async who =>
      (await myCalls(who, when)).some(({ remote }) => remote === e164) ? [who.firstName] : []))
    return rings.flat()
  }
  // her own lead; then Mika, as Odile is not there; Ada has had her turn
  expect(await at(later(DAY, 9_000))).toEqual(['Ada'])
  expect(await at(later(DAY, 10_000))).toEqual(['Mika'])
  const { id } = (await myCalls(firm.mika, later(DAY, 10_000))).find(({ remote }) => remote === e164)!
  await orderCall(firm.mika, id, 'decline', later(DAY, 12_000))
  expect(await at(later(DAY, 12_000))).toEqual(['Ada', 'Odile'])
  // whoever was next is not asked alone once more
  expect(await at(later(DAY, 25_000))).toEqual(['Ada', 'Odile'])
  await exchange.tellOf(ref, { kind: 'ended', at: DAY.getTime() + 26_000, why: 'no-answer', side: 'network' })
  await tx(database => database.delete(signIn))
  await setLine({})
})

describe('how a line rings', () => {
  const values = {
    carrier: 'practice',
    languages: [],
    records: true,
    ownerFirst: false,
    greeting: ' Leave a message. ',
    ringSeconds: 30,
    hours: { opens: '08:00', closes: '24:00', days: [1, 2] },
  }

  it('is set by an admin, and noted', async () => {
    const all = await changeLine(firm.rafe, firm.second.id, lineForm.validateSync(values), DAY)
    expect(all.find(({ id }) => id === firm.second.id)).toMatchObject({ ...values, greeting: 'Leave a message.' })
    await expect(changeLine(firm.rafe, firm.second.id, lineForm.validateSync({ ...values, ringOrder: [firm.ada.id, firm.noor.id] }), DAY))
      .rejects.toMatchObject(problem(422, { fields: { ringOrder: expect.stringContaining('does not answer') } }))
    await expect(changeLine(firm.odile, firm.second.id, lineForm.validateSync(values), DAY)).rejects.toMatchObject(problem(403))
    expect(await listLines(firm.rafe)).toHaveLength(4)
  })

  it.each([
    [{ ringSeconds: 4 }, 'five seconds'],
    [{ ringSeconds: 'x' }, 'number of seconds'],
    [{ hours: { opens: '18:00', closes: '08:00', days: [1] } }, 'closes before it opens'],
    [{ hours: { opens: '8', closes: '18:00', days: [1] } }, 'such as 08:00'],
    [{ hours: { opens: '08:00', closes: '18:00', days: [] } }, 'at least one day'],
  ])('refuses %j', (change, words) => {
    expect(() => lineForm.validateSync({ ...values, ...change })).toThrow(words)
  })
})
