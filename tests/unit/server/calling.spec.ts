import { and, eq, inArray } from 'drizzle-orm'
import ICAL from 'ical.js'
import { v7 as uuid } from 'uuid'
import { callState } from '~~/core/call/facts'
import type { Effect } from '~~/core/effects/effects'
import { myCalendar } from '~~/server/tasks/calendar'
import { declineWithText } from '~~/server/calling/decline-with-text'
import { dial } from '~~/server/calling/dial'
import { dispose } from '~~/server/calling/dispose'
import { listDispositions, orderDispositions, retireDisposition, saveDisposition } from '~~/server/calling/disposition-edit'
import { takeCallEvent } from '~~/server/calling/events'
import { endForgotten } from '~~/server/calling/forgotten'
import { myCalls } from '~~/server/calling/mine'
import { keepNotes, putAway } from '~~/server/calling/notes'
import { orderCall } from '~~/server/calling/orders'
import type { ExchangeEvent } from '~~/server/calling/port'
import { previewDispositions } from '~~/server/calling/preview'
import { lineToCall } from '~~/server/calling/call-line'
import { takeDispositionBack } from '~~/server/calling/take-back'
import { addTask, openTasks, setDone } from '~~/server/tasks/tasks'
import { readToday } from '~~/server/pages/today'
import { catchUp } from '~~/server/tellers/keep-up'
import { writeConsent } from '~~/server/consent/ledger'
import { tx } from '~~/server/db/door'
import { call, consentEntry, disposition, numberState, signIn, task } from '~~/server/db/schema'
import { addTemplate } from '~~/server/templates/templates'
import { moveRecord } from '~~/server/records/move'
import { readRecord } from '~~/server/pages/record'
import { changeRecord } from '~~/server/records/save'
import { sendText } from '~~/server/texting/send'
import { readInbox } from '~~/server/pages/inbox'
import { readConversation, readShelf } from '~~/server/pages/shelf'
import { settleConversation } from '~~/server/texting/owed'
import { readTimeline } from '~~/server/timeline/read'
import { inboxQuery } from '~~/shared/schemas/inbox'
import { dialForm, disposeForm, taskForm } from '~~/shared/schemas/calling'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { makeTemplate } from '~~/shared/schemas/template'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, form, later, makeFirm, makeLead, NIGHT, textTo, stageOf, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let exchange: ReturnType<typeof fakeExchange>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => {
  exchange = fakeExchange()
  fakeCarrier()
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const dialled = (phoneId: string, values: object = {}) =>
  dialForm.validateSync({ id: uuid(), phoneId, lineId: firm.portland.id, ...values })
const second = (n: number) => DAY.getTime() + n * 1_000

/** A lead that was called; with an answer after four seconds and an end after ten, unless it is to be still on. */
async function called({ answered = true, ended = true, values = {} } = {}) {
  const lead = await makeLead(firm.ada, values)
  const form = dialled(lead.phoneId)
  await dial(firm.ada, form, DAY)
  await exchange.tell(form.id, { kind: 'ringing', at: second(1) })
  if (answered) await exchange.tell(form.id, { kind: 'answered', at: second(4), by: 'person' })
  if (ended) await exchange.tell(form.id, { kind: 'ended', at: second(10), why: answered ? 'hung-up' : 'no-answer', side: 'them' })
  return { ...lead, callId: form.id }
}

const template = async (body: string, values: object = {}) => {
  const id = uuid()
  await addTemplate(
    firm.odile,
    makeTemplate.validateSync({ id, name: 'Sorry I missed you', modules: ['lead'], audience: 'all', body, ...values }),
    DAY,
  )
  return id
}
let letters = 0
async function key(effects: Effect[], values: object = {}) {
  const id = uuid()
  await tx(database =>
    database
      .insert(disposition)
      .values({
        id,
        module: 'lead',
        name: 'Visit wanted',
        family: 'reached',
        letter: String.fromCharCode(97 + (letters++ % 26)),
        position: 0,
        effects,
        ...values,
      }),
  )
  return id
}
const chosen = (dispositionId: string, choices: object[] = []) => disposeForm.validateSync({ dispositionId, choices })
const callOn = async (recordId: string) => (await readTimeline(firm.mika, recordId)).entries.find(({ kind }) => kind === 'call-out')!.call!
const record = (id: string) => readRecord(firm.ada, id, DAY)
const mine = async (who = firm.ada, now = later(DAY, 20_000)) => myCalls(who, now)

describe('dialling', () => {
  it('writes the call and its entry, asks the exchange once, and is the same call when dialled again', async () => {
    const { phoneId, recordId, e164 } = await makeLead(firm.ada)
    const form = dialled(phoneId)
    const first = await dial(firm.ada, form, DAY)
    expect(await dial(firm.ada, form, later(DAY, 500))).toEqual(first)
    expect(exchange.dialled).toEqual([
      { key: form.id, from: firm.portland.e164, to: e164, record: false, ringFirst: [], desk: firm.ada.id },
    ])
    expect(callState((await callOn(recordId)).facts)).toBe('dialling')
    await expect(dial(firm.ada, dialled(phoneId), DAY)).rejects.toMatchObject(problem(409, { type: 'on-a-call' }))
    await exchange.tell(form.id, { kind: 'ended', at: second(1), why: 'hung-up', side: 'us' })
  })

  it('is refused at night unless it is said, on a number not to be called, one that cannot be used, another’s line and a foreign record', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    await expect(dial(firm.ada, dialled(phoneId), NIGHT)).rejects.toMatchObject(
      problem(409, { type: 'night', zones: [{ name: 'Pacific/Honolulu' }] }),
    )
    await expect(dial(firm.noor, dialled(phoneId, { lineId: firm.halifax.id }), DAY)).rejects.toMatchObject(problem(404))
    await expect(dial(firm.ada, dialled(phoneId, { lineId: firm.halifax.id }), DAY)).rejects.toMatchObject(problem(403))
    const { phoneId: half } = await makeLead(firm.ada, {}, '808 55')
    await expect(dial(firm.ada, dialled(half), DAY)).rejects.toMatchObject(
      problem(422, { fields: { phoneId: expect.stringContaining('cannot be used') } }),
    )
    await writeConsent({ e164, at: DAY, kind: 'refused', covers: 'calls', how: 'by-hand', words: null })
    await expect(dial(firm.ada, dialled(phoneId, { nightAllowed: true }), DAY)).rejects.toMatchObject(problem(409, { type: 'no-calls' }))
    expect(exchange.dialled).toEqual([])
  })

  it('ends at once where the exchange is away, and one can dial again', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    exchange.answerNext({ kind: 'unreachable' })
    await dial(firm.ada, dialled(phoneId), DAY)
    expect((await callOn(recordId)).facts.end).toEqual({ why: 'network', side: 'network' })
    const again = dialled(phoneId)
    await dial(firm.ada, again, DAY)
    await exchange.tell(again.id, { kind: 'ended', at: second(2), why: 'busy', side: 'them' })
  })
})

describe('what the exchange tells', () => {
  it('is taken once by its id and in any order, counts as contact, and welcomes an answer', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    const form = dialled(phoneId)
    await dial(firm.ada, form, DAY)
    await exchange.tell(form.id, { kind: 'ended', at: second(30), why: 'hung-up', side: 'us' }, 'late')
    await exchange.tell(form.id, { kind: 'answered', at: second(3), by: 'person' })
    await exchange.tell(form.id, { kind: 'ended', at: second(1), why: 'busy', side: 'them' }, 'late')
    expect((await callOn(recordId)).facts).toMatchObject({ answeredAt: second(3), endedAt: second(30), end: { why: 'hung-up' } })
    const { lastContactAt, phones } = await record(recordId)
    expect([lastContactAt, phones[0]!.lastHeardAt]).toEqual([second(3), second(3)])
  })

  it('of a mailbox counts as contact, but nobody was heard', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    const form = dialled(phoneId)
    await dial(firm.ada, form, DAY)
    await exchange.tell(form.id, { kind: 'answered', at: second(3), by: 'machine' })
    await exchange.tell(form.id, { kind: 'ended', at: second(9), why: 'hung-up', side: 'us' })
    const { lastContactAt, phones } = await record(recordId)
    expect([lastContactAt, phones[0]!.lastHeardAt]).toEqual([second(3), null])
  })

  it('may never come: after four hours a call is over', async () => {
    const { recordId } = await called({ ended: false })
    await endForgotten(later(DAY, 3 * 3_600_000))
    expect((await callOn(recordId)).facts.end).toBeNull()
    await endForgotten(later(DAY, 5 * 3_600_000))
    expect((await callOn(recordId)).facts.end).toEqual({ why: 'network', side: 'network' })
  })
})

describe('what was told while we were away', () => {
  it('is fetched from the exchange, in pages, and taken once', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    const form = dialled(phoneId)
    await dial(firm.ada, form, DAY)
    const about = { ref: `call-${form.id}`, key: form.id, kind: 'happened' as const }
    const pages: Record<string, { told: ExchangeEvent[], cursor: string }> = {
      '': { told: [{ id: 'away-1', ...about, event: { kind: 'answered', at: second(3), by: 'person' } }], cursor: '1' },
      '1': { told: [{ id: 'away-2', ...about, event: { kind: 'ended', at: second(8), why: 'hung-up', side: 'them' } }], cursor: '2' },
      '2': { told: [], cursor: '2' },
    }
    const asked: string[] = []
    const teller = {
      name: 'away',
      eventsSince: async (cursor: string) => (asked.push(cursor), pages[cursor]!),
      take: (told: unknown) => takeCallEvent('practice', told as ExchangeEvent, DAY),
    }
    for (let turn = 0; turn < 2; turn++) await catchUp(teller)
    expect(asked).toEqual(['', '1', '2', '2'])
    expect((await callOn(recordId)).facts).toMatchObject({ answeredAt: second(3), endedAt: second(8) })
  })
})

describe('a call that comes in', () => {
  it('rings with who answers its line, with what was said last, and is taken by one', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    const ref = await exchange.ring(e164, firm.portland.e164, later(DAY, 15_000))
    const ringing = (await mine()).find(one => one.remote === e164)!
    expect(ringing).toMatchObject({
      direction: 'in',
      mine: false,
      record: { id: recordId, name: 'Iris Holm' },
      line: { name: 'Portland line' },
    })
    expect((await mine(firm.mika)).map(one => one.id)).toContain(ringing.id)
    expect((await mine(firm.noor)).map(one => one.id)).not.toContain(ringing.id)
    await orderCall(firm.mika, ringing.id, 'answer', DAY)
    await expect(orderCall(firm.ada, ringing.id, 'answer', DAY)).rejects.toMatchObject(problem(409, { type: 'taken' }))
    await expect(orderCall(firm.ada, ringing.id, 'hang-up', DAY)).rejects.toMatchObject(problem(404))
    await exchange.tellOf(ref, { kind: 'answered', at: second(16), by: 'person' })
    await orderCall(firm.mika, ringing.id, 'hold', DAY)
    expect(exchange.ordered.map(({ order }) => order)).toEqual(['answer', 'hold'])
    expect((await mine()).map(one => one.id)).not.toContain(ringing.id)
    await exchange.tellOf(ref, { kind: 'ended', at: second(19), why: 'hung-up', side: 'them' })
  })

  it('is not lost where its end is told before its beginning: the end is told again', async () => {
    const { e164 } = await makeLead(firm.ada)
    const ref = `early-${e164}`
    const end = {
      id: `end-${ref}`,
      ref,
      key: null,
      kind: 'happened' as const,
      event: { kind: 'ended' as const, at: second(9), why: 'no-answer' as const, side: 'network' as const },
    }
    expect(await takeCallEvent('practice', end, DAY)).toBe(false)
    await exchange.ring(e164, firm.portland.e164, DAY, ref)
    expect(await takeCallEvent('practice', end, DAY)).toBe(true)
    expect(await takeCallEvent('practice', end, DAY)).toBe(true)
    expect((await readShelf(firm.ada)).items.map(({ remote }) => remote)).toContain(e164)
  })

  it('stays with whoever presses twice, and goes back to all where our mailbox was quicker', async () => {
    const { e164 } = await makeLead(firm.ada)
    const ref = await exchange.ring(e164, firm.portland.e164, DAY)
    const { id } = (await mine()).find(one => one.remote === e164)!
    const isMine = async () => (await mine()).find(one => one.id === id)!.mine
    exchange.refuseNextOrder()
    await expect(orderCall(firm.ada, id, 'answer', DAY)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    expect(await isMine()).toBe(false)
    await orderCall(firm.ada, id, 'answer', DAY)
    exchange.refuseNextOrder()
    await expect(orderCall(firm.ada, id, 'answer', DAY)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    expect(await isMine()).toBe(true)
    await exchange.tellOf(ref, { kind: 'ended', at: second(3), why: 'hung-up', side: 'us' })
  })

  it('is declined with a text: the conversation of its line is open for it', async () => {
    const { e164 } = await makeLead(firm.ada)
    const ref = await exchange.ring(e164, firm.portland.e164, DAY)
    const ringing = (await mine()).find(one => one.remote === e164)!
    await expect(declineWithText(firm.noor, ringing.id, DAY)).rejects.toMatchObject(problem(404))
    const { conversationId } = await declineWithText(firm.ada, ringing.id, DAY)
    expect(exchange.ordered).toEqual([{ ref, order: 'decline' }])
    expect(await readConversation(firm.ada, conversationId, DAY)).toMatchObject({ remote: e164, lineId: firm.portland.id })
    await exchange.tellOf(ref, { kind: 'ended', at: second(3), why: 'declined', side: 'us' })
  })

  it('that one declines rings on with the others who are signed in, and is over only when nobody is left', async () => {
    const { e164 } = await makeLead(firm.ada)
    await tx(database => database.insert(signIn).values([firm.mika, firm.odile].map(({ id }, place) => ({
      tokenHash: `declines ${id}`, colleagueId: id, madeAt: DAY, endsAt: later(DAY, place === 0 ? 60_000 : -1),
    }))))
    const ref = await exchange.ring(e164, firm.portland.e164, DAY)
    const { id } = (await mine()).find(one => one.remote === e164)!
    const ringsWith = async () =>
      Promise.all([firm.ada, firm.mika].map(async who => (await mine(who)).some(one => one.id === id)))
    await orderCall(firm.ada, id, 'decline', DAY)
    expect([exchange.ordered, await ringsWith()]).toEqual([[], [false, true]])
    await orderCall(firm.mika, id, 'decline', DAY)
    expect(exchange.ordered).toEqual([{ ref, order: 'decline' }])
    await exchange.tellOf(ref, { kind: 'ended', at: second(3), why: 'declined', side: 'us' })
    expect(await ringsWith()).toEqual([false, false])
  })

  it('holds whom I talk to when I answer another one, and again when I go on with the first', async () => {
    const [one, other] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const refs = [await exchange.ring(one.e164, firm.portland.e164, DAY), await exchange.ring(other.e164, firm.portland.e164, DAY)]
    const ids = await Promise.all([one, other].map(async ({ e164 }) => (await mine()).find(({ remote }) => remote === e164)!.id))
    await orderCall(firm.ada, ids[0]!, 'answer', DAY)
    await exchange.tellOf(refs[0]!, { kind: 'answered', at: second(1), by: 'person' })
    await orderCall(firm.ada, ids[1]!, 'answer', DAY)
    expect(exchange.ordered.slice(1)).toEqual([{ ref: refs[0], order: 'hold' }, { ref: refs[1], order: 'answer' }])
    await exchange.tellOf(refs[0]!, { kind: 'switched', at: second(2), what: 'hold', on: true })
    await exchange.tellOf(refs[1]!, { kind: 'answered', at: second(2), by: 'person' })
    await orderCall(firm.ada, ids[0]!, 'resume', DAY)
    expect(exchange.ordered.slice(3)).toEqual([{ ref: refs[1], order: 'hold' }, { ref: refs[0], order: 'resume' }])
    for (const ref of refs) await exchange.tellOf(ref, { kind: 'ended', at: second(3), why: 'hung-up', side: 'us' })
  })

  it('owes nothing more where somebody wrote while it rang, however long it rang on with others', async () => {
    const { e164, phoneId } = await makeLead(firm.ada)
    const ref = await exchange.ring(e164, firm.portland.e164, DAY)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: `In a talk, I call you at five. ${e164}` }), new Date(second(3)))
    await exchange.tellOf(ref, { kind: 'ended', at: second(30), why: 'no-answer', side: 'network' })
    expect((await readShelf(firm.mika)).items.map(({ remote }) => remote)).not.toContain(e164)
    await drain(later(DAY, 60_000))
  })

  it('goes on with the first where our mailbox was quicker with the second', async () => {
    const { callId } = await called({ ended: false })
    const { e164 } = await makeLead(firm.ada)
    const second2 = await exchange.ring(e164, firm.portland.e164, DAY)
    const ringing = (await mine()).find(one => one.remote === e164)!
    // the first order is to hold, the second to answer
    exchange.refuseNextOrder('not-now', 1)
    await expect(orderCall(firm.ada, ringing.id, 'answer', DAY)).rejects.toMatchObject(problem(409))
    expect(exchange.ordered.map(({ ref, order }) => [ref === second2, order])).toEqual([[false, 'hold'], [true, 'answer'], [false, 'resume']])
    expect((await mine()).find(({ id }) => id === ringing.id)).toMatchObject({ mine: false })
    await exchange.tell(callId, { kind: 'ended', at: second(10), why: 'hung-up', side: 'us' })
    await exchange.tellOf(second2, { kind: 'ended', at: second(10), why: 'hung-up', side: 'them' })
  })

  it('that nobody took is owed an answer in its conversation, until somebody talks with them', async () => {
    const { e164, phoneId } = await makeLead(firm.ada)
    const waits = async (who = firm.mika) => (await readShelf(who)).items.find(({ remote }) => remote === e164)
    const ring = async (at: number) => {
      const ref = await exchange.ring(e164, firm.portland.e164, new Date(second(at)))
      await exchange.tellOf(ref, { kind: 'ended', at: second(at + 9), why: 'no-answer', side: 'network' })
    }
    await ring(0)
    expect((await mine(firm.mika)).map(({ remote }) => remote)).not.toContain(e164)
    expect(await waits()).toMatchObject({ waitsSince: second(9), waitsFor: 'missed-call' })
    expect(await waits(firm.noor)).toBeUndefined()
    expect((await readInbox(firm.mika, inboxQuery.cast({}))).owed.find(({ remote }) => remote === e164))
      .toMatchObject({ unseen: true, last: { kind: 'call', state: 'missed' } })

    const callBack = async (lineId: string, by: 'person' | 'machine', at: number) => {
      const form = dialled(phoneId, { lineId })
      await dial(firm.ada, form, new Date(second(at)))
      await exchange.tell(form.id, { kind: 'answered', at: second(at), by })
      await exchange.tell(form.id, { kind: 'ended', at: second(at + 5), why: 'hung-up', side: 'us' })
    }
    await callBack(firm.portland.id, 'machine', 20)
    expect(await waits()).toBeDefined()
    // over another line, by somebody who answers both
    await callBack(firm.own.id, 'person', 40)
    expect(await waits()).toBeUndefined()
    // told late, of a time before that talk
    await ring(28)
    expect(await waits()).toBeDefined()
    await settleConversation(firm.ada, (await waits())!.conversationId, new Date(second(50)))
    await ring(29)
    expect(await waits()).toBeUndefined()
  })
})

describe('notes of a call', () => {
  it('are its words on the timeline, and its caller’s alone to write', async () => {
    const { callId, recordId } = await called({ ended: false })
    await keepNotes(firm.ada, callId, 'Two racks are loose.')
    await keepNotes(firm.ada, callId, 'Two racks are loose. Mornings only.')
    expect((await readTimeline(firm.mika, recordId)).entries.find(({ kind }) => kind === 'call-out')!.words).toBe(
      'Two racks are loose. Mornings only.',
    )
    expect((await mine()).find(one => one.id === callId)!.notes).toContain('Mornings only')
    await expect(keepNotes(firm.mika, callId, 'Mine')).rejects.toMatchObject(problem(404))
    await exchange.tell(callId, { kind: 'ended', at: second(20), why: 'hung-up', side: 'us' })
  })
})

describe('a disposition', () => {
  it('shows before what it would do for this person', async () => {
    const templateId = await template('Hi {{ person.first_name }}, {{ sender.first_name }} here. Sorry that I missed you.')
    const id = await key(
      [
        { kind: 'text', templateId },
        { kind: 'stage', stageId: stageOf('Leads', 'Trial') },
        { kind: 'call-back', days: 2, time: '10:00' },
      ],
      { letter: 'z' },
    )
    const { callId } = await called()
    const preview = (await previewDispositions(firm.ada, callId, DAY)).find(one => one.id === id)!
    expect(preview.effects).toMatchObject([
      {
        words: 'Text “Sorry I missed you”',
        text: { text: 'Hi Iris, Ada here. Sorry that I missed you.', line: 'Portland line' },
        problem: null,
      },
      { words: 'Stage to Trial' },
      { words: expect.stringMatching(/^Call back 2026-\d\d-\d\dT10:00\[Pacific\/Honolulu\]$/), due: { zone: 'Pacific/Honolulu' } },
    ])
    await expect(previewDispositions(firm.mika, callId, DAY)).rejects.toMatchObject(problem(404))
  })

  it('is said of a number on no record too: it does nothing to anybody, is kept, and can be taken back', async () => {
    const id = await key([{ kind: 'add-tag', tag: 'visit' }])
    const ref = await exchange.ring('+447700900871', firm.portland.e164, DAY)
    const { id: callId } = (await mine()).find(one => one.remote === '+447700900871')!
    await orderCall(firm.ada, callId, 'answer', DAY)
    await exchange.tellOf(ref, { kind: 'answered', at: second(1), by: 'person' })
    await exchange.tellOf(ref, { kind: 'ended', at: second(9), why: 'hung-up', side: 'network' })
    expect((await previewDispositions(firm.ada, callId, DAY)).find(one => one.id === id)).toMatchObject({ effects: [] })
    expect(await dispose(firm.ada, callId, chosen(id), later(DAY, 10_000))).toMatchObject({ name: 'Visit wanted', effects: [] })
    expect((await mine()).find(one => one.id === callId)?.disposition).toMatchObject({ name: 'Visit wanted' })
    await takeDispositionBack(firm.ada, callId, later(DAY, 11_000))
    expect((await mine()).find(one => one.id === callId)?.disposition).toBeNull()
    await putAway(firm.ada, callId, later(DAY, 12_000))
  })

  it('does everything once, however often it is pressed, and says so in one entry', async () => {
    const carrier = fakeCarrier()
    const templateId = await template('Hi {{ person.first_name }}, thank you for the minute.')
    const id = await key([
      { kind: 'text', templateId },
      { kind: 'stage', stageId: stageOf('Leads', 'Trial') },
      { kind: 'add-tag', tag: 'visit' },
      { kind: 'call-back', days: 2, time: '10:00' },
    ])
    const { callId, recordId, e164 } = await called()
    const [done, again] = await Promise.all([
      dispose(firm.ada, callId, chosen(id), later(DAY, 11_000)),
      dispose(firm.ada, callId, chosen(id), later(DAY, 11_000)),
    ])
    expect(again).toEqual(done)
    expect(done).toMatchObject({
      name: 'Visit wanted',
      effects: [{ state: 'done' }, { state: 'done' }, { state: 'done' }, { state: 'done' }],
    })
    await drain(later(DAY, 60_000))
    expect(carrier.asked).toMatchObject([{ to: e164, text: 'Hi Iris, thank you for the minute.' }])
    expect(await record(recordId)).toMatchObject({
      stage: { name: 'Trial' },
      tags: ['visit'],
      tasks: [{ kind: 'call-back', title: 'Call back', zone: 'Pacific/Honolulu' }],
    })
    expect(await callOn(recordId)).toMatchObject({
      disposition: { name: 'Visit wanted', colour: 'accent' },
      effects: [{}, {}, {}, { words: expect.stringMatching(/^Call back \S+T10:00\[Pacific/) }],
    })
    const other = await key([])
    await expect(dispose(firm.ada, callId, chosen(other), DAY)).rejects.toMatchObject(problem(409, { type: 'disposed' }))
  })

  it('does the rest where one effect fails, and says why', async () => {
    const templateId = await template('Hi {{ person.first_name }}.')
    const id = await key([
      { kind: 'text', templateId },
      { kind: 'stage', stageId: stageOf('Candidates', 'Hired') },
      { kind: 'add-tag', tag: 'visit' },
    ])
    const { callId, recordId, e164 } = await called()
    await writeConsent({ e164, at: DAY, kind: 'refused', covers: 'texts', how: 'by-hand', words: null })
    expect((await dispose(firm.ada, callId, chosen(id), DAY)).effects).toEqual([
      { position: 0, words: 'Text “Sorry I missed you”', state: 'failed', reason: 'This number has opted out of texts.' },
      { position: 1, words: 'Stage to one that is gone', state: 'failed', reason: expect.stringContaining('cannot stand in this stage') },
      { position: 2, words: 'Tag visit', state: 'done', reason: null },
    ])
    expect((await record(recordId)).tags).toEqual(['visit'])
  })

  it('asks for what is still missing before it does anything, and takes what is said and left out', async () => {
    const carrier = fakeCarrier()
    const templateId = await template('A mechanic comes on {{ fill_in.day }}.', {
      fillIns: [{ key: 'day', label: 'Day', kind: 'text', example: 'Thursday' }],
    })
    const id = await key([
      { kind: 'add-tag', tag: 'visit' },
      { kind: 'text', templateId },
      { kind: 'call-back', days: null, time: '09:00' },
      { kind: 'stage', stageId: stageOf('Leads', 'Offer') },
    ])
    const { callId, recordId } = await called()
    await expect(dispose(firm.ada, callId, chosen(id), DAY)).rejects.toMatchObject(
      problem(422, { fields: { 'choices.2.day': expect.any(String) } }),
    )
    await expect(dispose(firm.ada, callId, chosen(id, [{ position: 2, day: '2026-12-03' }]), DAY)).rejects.toMatchObject(
      problem(422, { fields: { 'choices.1.answers.day': expect.any(String) } }),
    )
    expect((await record(recordId)).tags).toEqual([])
    const { effects } = await dispose(
      firm.ada,
      callId,
      chosen(id, [
        { position: 1, answers: { day: 'Friday' } },
        { position: 2, day: '2026-12-03', time: '11:30' },
        { position: 3, leftOut: true },
      ]),
      DAY,
    )
    expect(effects.map(({ state }) => state)).toEqual(['done', 'done', 'done', 'left-out'])
    await drain(later(DAY, 60_000))
    expect(carrier.asked).toMatchObject([{ text: 'A mechanic comes on Friday.' }])
    expect(await record(recordId)).toMatchObject({ stage: { name: 'New' }, tasks: [{ wallTime: '2026-12-03T11:30' }] })
  })

  it('sends the text as it was changed by hand', async () => {
    const carrier = fakeCarrier()
    const id = await key([{ kind: 'text', templateId: await template('Hi {{ person.first_name }}.') }])
    const { callId } = await called()
    await dispose(firm.ada, callId, chosen(id, [{ position: 0, text: 'Hi Iris, until Friday then.' }]), DAY)
    await drain(later(DAY, 60_000))
    expect(carrier.asked).toMatchObject([{ text: 'Hi Iris, until Friday then.' }])
  })

  it('marks a wrong number, and a person not to be called on any number', async () => {
    const { callId, recordId, phoneId } = await called()
    await dispose(firm.ada, callId, chosen(await key([{ kind: 'wrong-number' }])), DAY)
    expect((await record(recordId)).phones).toMatchObject([{ e164: null, unusable: 'not-theirs' }])
    await expect(dial(firm.ada, dialled(phoneId), DAY)).rejects.toMatchObject(problem(422))
    const second = `808 555 09${letters++ + 10}`
    const other = await called({
      values: {
        phones: [
          { label: 'mobile', typed: `808 555 09${letters++ + 10}` },
          { label: 'shop', typed: second },
        ],
      },
    })
    await dispose(firm.ada, other.callId, chosen(await key([{ kind: 'no-calls' }])), DAY)
    const { phones } = await record(other.recordId)
    for (const { id } of phones) await expect(dial(firm.ada, dialled(id), DAY)).rejects.toMatchObject(problem(409, { type: 'no-calls' }))
    expect(phones.map(one => one.mayBeCalled)).toEqual([false, false])
    await takeDispositionBack(firm.ada, other.callId, later(DAY, 2_000))
    expect((await record(other.recordId)).phones.map(one => one.mayBeCalled)).toEqual([true, true])
  })

  it('taken back leaves everybody as they were: whoever had refused calls before has refused them still', async () => {
    const id = await key([{ kind: 'no-calls' }])
    const [asked, never] = [await called(), await called()]
    await writeConsent({
      e164: asked.e164,
      at: later(DAY, -60_000),
      kind: 'refused',
      covers: 'calls',
      how: 'by-hand',
      words: 'Never call here.',
    })
    for (const { callId } of [asked, never]) {
      await dispose(firm.ada, callId, chosen(id), DAY)
      await takeDispositionBack(firm.ada, callId, later(DAY, 2_000))
    }
    const calls = async ({ e164 }: { e164: string }) =>
      (await tx(database => database.select().from(numberState).where(eq(numberState.e164, e164))))[0]!.calls
    expect([await calls(asked), await calls(never)]).toEqual(['refused', 'unknown'])
    expect(
      await tx(database =>
        database
          .select()
          .from(consentEntry)
          .where(and(inArray(consentEntry.e164, [asked.e164, never.e164]), eq(consentEntry.kind, 'agreed'))),
      ),
    ).toEqual([])
  })

  it('taken back leaves what somebody has done since: a number typed anew, a stage moved on', async () => {
    const id = await key([{ kind: 'wrong-number' }, { kind: 'stage', stageId: stageOf('Leads', 'Trial') }])
    const { callId, recordId, phoneId } = await called({ values: { stageId: stageOf('Leads', 'Talking') } })
    await dispose(firm.ada, callId, chosen(id), DAY)
    await changeRecord(
      firm.mika,
      recordId,
      {
        was: null,
        ...form({
          firstName: 'Iris',
          lastName: 'Holm',
          region: 'HI',
          country: 'US',
          stageId: stageOf('Leads', 'Trial'),
          phones: [{ id: phoneId, label: 'mobile', typed: '808 555 0188' }],
        }),
        version: (await record(recordId)).version,
      },
      DAY,
    )
    await moveRecord(firm.mika, recordId, { stageId: stageOf('Leads', 'Offer'), from: stageOf('Leads', 'Trial') }, DAY)
    expect((await takeDispositionBack(firm.ada, callId, later(DAY, 2_000))).effects).toMatchObject([
      { state: 'stays', reason: 'The number has been changed or taken off since.' },
      { state: 'stays', reason: expect.stringContaining('Somebody else has moved') },
    ])
    expect(await record(recordId)).toMatchObject({ stage: { name: 'Offer' }, phones: [{ e164: '+18085550188' }] })
  })

  it('says of what was so already that there was nothing to do, and takes nothing of it back', async () => {
    const id = await key([{ kind: 'add-tag', tag: 'visit' }, { kind: 'stage', stageId: stageOf('Leads', 'Talking') }])
    const { callId, recordId } = await called({ values: { stageId: stageOf('Leads', 'Talking'), tags: ['visit'] } })
    const unchanged = [
      { state: 'unchanged', reason: 'It has this tag already.' },
      { state: 'unchanged', reason: 'It stands there already.' },
    ]
    expect((await dispose(firm.ada, callId, chosen(id), DAY)).effects).toMatchObject(unchanged)
    expect((await takeDispositionBack(firm.ada, callId, DAY)).effects).toMatchObject(unchanged)
    expect(await record(recordId)).toMatchObject({ tags: ['visit'], stage: { name: 'Talking' } })
  })

  it('waits for the end of the call, and belongs to its module and to its caller', async () => {
    const id = await key([])
    const { callId } = await called({ ended: false })
    await expect(dispose(firm.ada, callId, chosen(id), DAY)).rejects.toMatchObject(problem(409, { type: 'still-on' }))
    await exchange.tell(callId, { kind: 'ended', at: second(20), why: 'hung-up', side: 'us' })
    await expect(dispose(firm.ada, callId, chosen(await key([], { module: 'client' })), DAY)).rejects.toMatchObject(problem(404))
    await expect(dispose(firm.mika, callId, chosen(id), DAY)).rejects.toMatchObject(problem(404))
  })

  it('is taken back: what was done is undone, what has not left does not leave, what cannot be undone says so', async () => {
    const carrier = fakeCarrier()
    const id = await key([
      { kind: 'text', templateId: await template('Hi {{ person.first_name }}.') },
      { kind: 'stage', stageId: stageOf('Leads', 'Trial') },
      { kind: 'add-tag', tag: 'visit' },
      { kind: 'task', title: 'Loose racks', days: 1, time: '08:00' },
      { kind: 'wrong-number' },
      { kind: 'no-calls' },
    ])
    const { callId, recordId, phoneId } = await called({ values: { stageId: stageOf('Leads', 'Talking') } })
    await dispose(firm.ada, callId, chosen(id), DAY)
    const back = await takeDispositionBack(firm.ada, callId, later(DAY, 2_000))
    expect(back.effects.map(({ state }) => state)).toEqual([
      'taken-back',
      'taken-back',
      'taken-back',
      'taken-back',
      'taken-back',
      'taken-back',
    ])
    await drain(later(DAY, 60_000))
    expect(carrier.asked).toEqual([])
    expect(await record(recordId)).toMatchObject({
      stage: { name: 'Talking' },
      tags: [],
      tasks: [],
      phones: [{ unusable: null, mayBeCalled: true }],
    })
    expect((await callOn(recordId)).disposition).toBeNull()
    await expect(takeDispositionBack(firm.ada, callId, DAY)).rejects.toMatchObject(problem(409, { type: 'not-disposed' }))

    await dispose(firm.ada, callId, chosen(id, [{ position: 4, leftOut: true }, { position: 5, leftOut: true }]), later(DAY, 3_000))
    await drain(later(DAY, 60_000))
    const [made] = await openTasks(firm.ada, { recordId })
    await setDone(firm.ada, made!.id, true, later(DAY, 61_000))
    const stays = await takeDispositionBack(firm.ada, callId, later(DAY, 62_000))
    expect(stays.effects.map(({ state, reason }) => [state, reason])).toEqual([
      ['stays', expect.stringContaining('already left')],
      ['taken-back', null],
      ['taken-back', null],
      ['stays', 'It is done already.'],
      ['left-out', null],
      ['left-out', null],
    ])
    await dial(firm.ada, dialled(phoneId), DAY).then(({ id: again }) =>
      exchange.tell(again, { kind: 'ended', at: second(70), why: 'busy', side: 'them' }),
    )
  })
})

describe('a disposition for one purpose', () => {
  it('is asked after calls over its line alone, and refused for any other', async () => {
    const id = uuid()
    const taken = (await listDispositions(firm.odile, 'lead')).map(one => one.letter)
    const letter = [...'abcdefghijklmnopqrstuvwxyz'].find(one => !taken.includes(one))
    await saveDisposition(firm.odile, dispositionForm.validateSync({
      id, module: 'lead', name: 'Only here', family: 'reached', letter, effects: [], onlyLineId: firm.second.id,
    }), DAY)
    expect((await listDispositions(firm.odile, 'lead')).find(one => one.id === id)).toMatchObject({ purpose: 'Minneapolis line', onlyRoundId: null })
    const { callId } = await called()
    expect((await previewDispositions(firm.ada, callId, DAY)).map(one => one.id)).not.toContain(id)
    await expect(dispose(firm.ada, callId, disposeForm.validateSync({ dispositionId: id }), DAY)).rejects.toMatchObject(problem(404))
    await tx(database => database.update(call).set({ lineId: firm.second.id }).where(eq(call.id, callId)))
    expect((await previewDispositions(firm.ada, callId, DAY)).map(one => one.id)).toContain(id)
    await dispose(firm.ada, callId, disposeForm.validateSync({ dispositionId: id }), DAY)
    await retireDisposition(firm.odile, id, true, DAY)
    expect(() => dispositionForm.validateSync({
      id, module: 'lead', name: 'Both', family: 'reached', letter: 'q', onlyLineId: firm.second.id, onlyRoundId: uuid(),
    })).toThrow('one purpose')
  })
})

describe('making dispositions', () => {
  const made = (values: object = {}) => ({
    id: uuid(),
    module: 'candidate',
    name: 'Starts',
    family: 'reached',
    letter: 'S',
    effects: [],
    ...values,
  })
  const save = async (values: object = {}, who = firm.odile) =>
    saveDisposition(who, await dispositionForm.validate(made(values), { stripUnknown: true }), DAY)

  it('is for leads and admins, keeps effects as their kinds know them, and says them in words', async () => {
    await expect(save({}, firm.ada)).rejects.toMatchObject(problem(403))
    const templateId = await template('Welcome.', { modules: ['candidate'], name: 'Welcome' })
    const [first] = await save({
      effects: [
        { kind: 'text', templateId, more: 1 },
        { kind: 'stage', stageId: stageOf('Candidates', 'Hired') },
        { kind: 'task', title: 'Order a helmet', days: 1, time: '09:00' },
        { kind: 'call-back', days: null, time: '10:00' },
      ],
    })
    expect(first).toMatchObject({
      letter: 's',
      words: ['Text “Welcome”', 'Stage to Hired', 'Task “Order a helmet”, the next day at T09:00', 'Call back, on a day you say'],
    })
    expect(first!.effects[0]).toEqual({ kind: 'text', templateId })
  })

  it.each([
    [{ effects: [{ kind: 'stage', stageId: stageOf('Leads', 'Leased') }] }, 'effects[0].stageId', 'no such stage'],
    [{ effects: [{ kind: 'add-tag', tag: 'a' }, { kind: 'add-tag' }] }, 'effects[1].tag', 'Write the tag'],
    [{ effects: [{ kind: 'text', templateId: uuid() }] }, 'effects[0].templateId', 'not there for everybody'],
    [{ effects: [{ kind: 'no-calls' }, { kind: 'no-calls' }] }, 'effects[1]', 'Once is enough'],
    [{ effects: [{ kind: 'task', title: 'X', days: -1, time: '09:00' }] }, 'effects[0].days', 'Not before'],
    [{ effects: [{ kind: 'sing' }] }, 'effects[0]', 'Choose what it does'],
    [{ letter: 'ß' }, 'letter', 'One letter'],
    [{ letter: 's', name: 'Another' }, 'letter', '“Starts” has this letter'],
    [{ letter: 'q', name: 'STARTS' }, 'name', 'already'],
  ])('refuses %j at %s', async (values, field, says) => {
    const refused = (await save({ letter: 'z', name: 'Zed', ...values }).then(
      () => ({}),
      (error: unknown) => error,
    )) as { path?: string, message?: string, details?: { fields: Record<string, string> } }
    const fields = refused.details?.fields ?? { [refused.path!]: refused.message! }
    expect(fields[field]).toContain(says)
  })

  it('refuses a template of another module, by its name', async () => {
    const templateId = await template('For leads.', { name: 'For leads' })
    await expect(save({ effects: [{ kind: 'text', templateId }], letter: 'k', name: 'K' })).rejects.toMatchObject(
      problem(422, { fields: { 'effects[0].templateId': expect.stringContaining('“For leads” does not belong') } }),
    )
  })

  it('can be ordered, retired and taken up again, unless its letter has gone', async () => {
    await save({ letter: 'u', name: 'Second' })
    const before = await listDispositions(firm.rafe, 'candidate')
    const [first, second] = before.map(({ id }) => id)
    expect((await orderDispositions(firm.odile, 'candidate', [second!, first!], DAY)).map(({ id }) => id).slice(0, 2)).toEqual([
      second,
      first,
    ])
    await retireDisposition(firm.odile, first!, true, DAY)
    await save({ letter: 's', name: 'Third' })
    await expect(retireDisposition(firm.odile, first!, false, DAY)).rejects.toMatchObject(problem(409, { type: 'letter-taken' }))
    expect((await listDispositions(firm.odile, 'candidate')).at(-1)).toMatchObject({ id: first, retired: true })
  })
})

describe('a task', () => {
  it('is refused on a day that the calendar does not have, with what to do', async () => {
    await expect(taskForm.validate({ id: uuid(), title: 'Call', day: '2026-02-30', time: '09:00' })).rejects.toThrow(
      'The calendar has no such day. Choose another one.',
    )
    await expect(disposeForm.validate({ dispositionId: uuid(), choices: [{ position: 0, day: '2026-11-31' }] })).rejects.toThrow(
      'no such day',
    )
  })

  it('is due by the clock of the person, is done and not done after all, and is seen by who sees the record', async () => {
    const { recordId } = await makeLead(firm.ada)
    const id = uuid()
    await addTask(firm.ada, recordId, { id, kind: 'task', title: 'Send the prices', day: '2026-12-03', time: '09:00' }, DAY)
    await addTask(firm.ada, recordId, { id, kind: 'task', title: 'Send the prices', day: '2026-12-03', time: '09:00' }, DAY)
    expect(await openTasks(firm.ada, { recordId })).toMatchObject([
      {
        id,
        wallTime: '2026-12-03T09:00',
        zone: 'Pacific/Honolulu',
        dueAt: Date.parse('2026-12-03T19:00:00Z'),
        owner: { firstName: 'Ada' },
      },
    ])
    expect(await openTasks(firm.noor, { recordId })).toEqual([])
    await expect(setDone(firm.noor, id, true, DAY)).rejects.toMatchObject(problem(404))
    await setDone(firm.mika, id, true, DAY)
    await setDone(firm.mika, id, true, DAY)
    expect(await openTasks(firm.ada, { recordId })).toEqual([])
    await setDone(firm.ada, id, false, DAY)
    expect((await openTasks(firm.ada, 'mine')).map(one => one.id)).toContain(id)
    expect(
      (await readTimeline(firm.mika, recordId)).entries
        .filter(({ kind }) => kind.startsWith('task'))
        .map(({ kind }) => kind)
        .sort(),
    ).toEqual(['task-again', 'task-done', 'task-made'])
    expect(await tx(database => database.select().from(task).where(eq(task.id, id)))).toHaveLength(1)
  })
})

describe('my calendar', () => {
  it('holds my open tasks and call-backs, as an independent reader of iCalendar (RFC 5545) finds them', async () => {
    const { recordId } = await makeLead(firm.noor, { lastName: 'Holm, with; odd \\ letters' })
    await addTask(firm.noor, recordId, { id: uuid(), kind: 'call-back', title: 'Call back', day: '2026-12-03', time: '09:00' }, DAY)
    await addTask(
      firm.noor,
      recordId,
      { id: uuid(), kind: 'task', title: 'Send the prices\nfor two', day: '2026-12-04', time: '16:30' },
      DAY,
    )
    const done = uuid()
    await addTask(firm.noor, recordId, { id: done, kind: 'task', title: 'Over', day: '2026-12-05', time: '16:30' }, DAY)
    await setDone(firm.noor, done, true, DAY)
    const calendar = new ICAL.Component(ICAL.parse(await myCalendar(firm.noor, 'en-US', DAY)) as unknown[])
    const events = calendar.getAllSubcomponents('vevent').map(one => new ICAL.Event(one))
    expect(events.map(({ summary, startDate, duration }) => [summary, startDate.toJSDate().toISOString(), duration.toSeconds()])).toEqual([
      ['Call Iris Holm, with; odd \\ letters', '2026-12-03T19:00:00.000Z', 900],
      ['Send the prices\nfor two: Iris Holm, with; odd \\ letters', '2026-12-05T02:30:00.000Z', 900],
    ])
    expect(events[0]!.description).toBe('9:00 am Honolulu time on Thu, Dec 3')
    expect(events[0]!.component.getFirstSubcomponent('valarm')!.getFirstPropertyValue('action')).toBe('DISPLAY')
  })
})

describe('today', () => {
  it('holds what is due and what comes later in my day, texts that did not arrive, and who is new, each for its owner alone', async () => {
    const [fresh, contacted] = [await makeLead(firm.mika), await makeLead(firm.mika)]
    const add = (recordId: string, title: string, day: string, time: string) =>
      addTask(firm.mika, recordId, { id: uuid(), kind: 'call-back', title, day, time }, DAY)
    const honolulu = (at: Date) => new Date(at.getTime() - 10 * 3_600_000).toISOString()
    const [soon, past, tomorrow] = [3_600_000, -3_600_000, 30 * 3_600_000].map(ms => honolulu(later(DAY, ms)))
    await add(contacted.recordId, 'Later', soon!.slice(0, 10), soon!.slice(11, 16))
    await add(contacted.recordId, 'Due', past!.slice(0, 10), past!.slice(11, 16))
    await add(contacted.recordId, 'Tomorrow', tomorrow!.slice(0, 10), tomorrow!.slice(11, 16))
    const carrier = fakeCarrier()
    carrier.next({ kind: 'refused', code: 'recipient-unknown' })
    const form = textTo(contacted.phoneId, firm.portland, { text: 'Are you there?' })
    await sendText(firm.mika, form, DAY)
    await drain(later(DAY, 10_000))
    const today = await readToday(firm.mika, later(DAY, 11_000))
    expect(today).toMatchObject({
      due: [{ title: 'Due', phoneId: contacted.phoneId }],
      later: [{ title: 'Later' }],
      failed: [{ id: form.id, name: 'Iris Holm', code: 'recipient-unknown', words: 'Are you there?' }],
    })
    expect(today.fresh.map(({ id }) => id)).toContain(fresh.recordId)
    // whoever tries again has seen it
    await sendText(firm.mika, textTo(contacted.phoneId, firm.portland), later(DAY, 12_000))
    expect((await readToday(firm.mika, later(DAY, 13_000))).failed).toEqual([])
    const others = await readToday(firm.noor, DAY)
    expect([others.due, others.later, others.failed]).toEqual([[], [], []])
  })

  it('calls from the line used last with the number, else from the nearest', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    expect(await lineToCall(firm.ada, '+16125550150')).toBe(firm.second.id)
    await sendText(firm.ada, textTo(phoneId, firm.second), DAY)
    expect(await lineToCall(firm.ada, e164)).toBe(firm.second.id)
    const form = dialForm.validateSync({ id: uuid(), phoneId })
    await dial(firm.ada, form, DAY)
    expect(exchange.dialled).toMatchObject([{ from: firm.second.e164 }])
    await exchange.tell(form.id, { kind: 'ended', at: second(2), why: 'busy', side: 'them' })
  })
})
