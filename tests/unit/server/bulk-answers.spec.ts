import { v7 as uuid } from 'uuid'
import { readAsked } from '~~/server/bulk/asked'
import { startCheck } from '~~/server/bulk/check'
import { makeBulk, writeBulk } from '~~/server/bulk/make'
import { setPace } from '~~/server/bulk/pace'
import { previewPlan } from '~~/server/bulk/plan'
import { readBulk, readBulkPeople } from '~~/server/bulk/read'
import { repeatBulk } from '~~/server/bulk/repeat'
import { startBulk, turnBulk } from '~~/server/bulk/run'
import type { SignedIn } from '~~/server/identity/sign-in'
import { readInbox } from '~~/server/pages/inbox'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { bulkPeopleQuery, makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { inboxQuery } from '~~/shared/schemas/inbox'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())
let days = 0
let now = DAY
beforeEach(() => now = later(DAY, 10 * ++days * 86_400_000))

type Lead = Awaited<ReturnType<typeof makeLead>>
const hear = async (from: Lead, text: string, to = firm.portland) => {
  await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: from.e164, to: to.e164, text }, now)
  await drain(now)
  now = later(now, 1_000)
}
async function seconds(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await drain(now = later(now, 1_000))
}
const leads = async (...names: string[]) => {
  const made: Lead[] = []
  for (const firstName of names) made.push(await makeLead(firm.ada, { firstName }))
  return made
}
const selectionOf = (people: Lead[]) => ({ list: { module: 'lead', sort: 'name', direction: 'up' }, ids: people.map(({ recordId }) => recordId) })
async function begin(whom: object, body: string, values: object = {}, who: SignedIn = firm.ada): Promise<string> {
  const id = uuid()
  await makeBulk(who, makeBulkForm.validateSync({ id, name: 'Demonstration day', ...whom }), now)
  await writeBulk(who, id, writeBulkForm.validateSync({ name: 'Demonstration day', body, ...values }), now)
  await startCheck(who, id, now)
  await drain(now)
  return id
}
const start = (id: string, who: SignedIn = firm.ada) => startBulk(who, id, startBulkForm.cast({}), now)
/** A bulk text that has gone to some people. */
async function sentTo(people: Lead[]): Promise<string> {
  const id = await begin({ selection: selectionOf(people) }, 'We show our new winter range on the 12th. Shall I keep you a place?', { lineId: firm.portland.id })
  await start(id)
  await seconds(people.length + 2)
  now = later(now, 600_000)
  return id
}
const begunTo = (bulkId: string, people: Lead[], body = 'Hi {{ person.first_name }}, at ten, Pine Street 4. Ada', who: SignedIn = firm.ada) =>
  begin({ whoAsk: { bulkId, recordIds: people.map(({ recordId }) => recordId) } }, body, { numberWay: 'answered', latelyDays: 0 }, who)
const rowsOf = async (id: string) => (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast({}))).rows
const waits = async () => (await readInbox(firm.ada, inboxQuery.cast({}))).owed

describe('what those ask who answer a bulk text', () => {
  it('is gathered by what they ask for, with all that each has written since they wait', async () => {
    const [one, two, three, four, five] = await leads('Una', 'Dos', 'Tre', 'Fyra', 'Cinq')
    const id = await sentTo([one!, two!, three!, four!, five!])
    await hear(one!, 'Sounds good')
    await hear(one!, 'What time does it start?')
    await hear(two!, 'when?')
    await hear(three!, 'Yes please')
    await hear(four!, 'Do you take dogs')
    const asked = await readAsked(firm.ada, id)
    expect(asked).toMatchObject({
      same: [{ topic: 'when', word: null, people: [{ recordId: one!.recordId, words: 'Sounds good\nWhat time does it start?' }, { recordId: two!.recordId }] }],
      alone: [{ recordId: four!.recordId }],
      other: [{ recordId: three!.recordId }],
      more: false,
    })
    await expect(readAsked(firm.mika, id)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it('stands in the inbox, beside who waits with it', async () => {
    const [one, two] = await leads('Una', 'Dos')
    await sentTo([one!])
    await hear(one!, 'Where is it?')
    await hear(two!, 'Are you open on Sunday?')
    const found = await waits()
    expect(found.find(({ remote }) => remote === one!.e164)).toMatchObject({ answersTo: 'Demonstration day' })
    expect(found.find(({ remote }) => remote === two!.e164)).toMatchObject({ answersTo: null })
  })
})

describe('one answer to all who ask the same', () => {
  it('goes to each on their own line, in words of their own, and nobody waits any more', async () => {
    const [one, two] = await leads('Una', 'Dos')
    const id = await sentTo([one!, two!])
    await hear(one!, 'When?')
    // over another line than the text had come by
    await hear(two!, 'What time?', firm.second)
    const answer = await begunTo(id, [one!, two!])
    expect(await rowsOf(answer)).toMatchObject([{ asked: 'What time?', lately: false }, { asked: 'When?', lately: false }])
    await start(answer)
    await seconds(4)
    const last = carrier.asked.slice(-2)
    expect(last.map(({ from, to, text }) => [from, to, text]).sort()).toEqual([
      [firm.portland.e164, one!.e164, 'Hi Una, at ten, Pine Street 4. Ada'],
      [firm.second.e164, two!.e164, 'Hi Dos, at ten, Pine Street 4. Ada'],
    ].sort())
    const theirs = (await readInbox(firm.ada, inboxQuery.cast({}))).others.filter(({ remote }) => [one!.e164, two!.e164].includes(remote))
    expect(theirs.map(({ waitsSince, unseen }) => ({ waitsSince, unseen }))).toContainEqual({ waitsSince: null, unseen: false })
    expect((await waits()).filter(({ remote }) => [one!.e164, two!.e164].includes(remote))).toEqual([])
    expect(await readAsked(firm.ada, id)).toMatchObject({ same: [], alone: [], other: [] })
    expect(await readBulk(firm.ada, answer)).toMatchObject({ state: 'done', mayRepeat: false })
    await expect(repeatBulk(firm.ada, answer, uuid(), now)).rejects.toMatchObject({ details: { type: 'unknown-whom' } })
  })

  it('does not go to whoever was answered before the check, or between it and the sending', async () => {
    const [before, between, still] = await leads('Before', 'Between', 'Still')
    const id = await sentTo([before!, between!, still!])
    for (const one of [before!, between!, still!]) await hear(one, 'When?')
    await sendText(firm.noor, textTo(before!.phoneId, firm.portland, { text: 'At ten. Noor' }), now).catch(() => undefined)
    await sendText(firm.ada, textTo(before!.phoneId, firm.portland, { text: 'At ten.' }), now)
    const answer = await begunTo(id, [before!, between!, still!])
    expect((await readBulk(firm.ada, answer)).leftOut).toEqual([{ reason: 'answered', detail: null, people: 1 }])
    await sendText(firm.ada, textTo(between!.phoneId, firm.portland, { text: 'At ten, the same place.' }), now)
    await start(answer)
    await seconds(4)
    const rows = await rowsOf(answer)
    expect(rows.find(({ recordId }) => recordId === between!.recordId)).toMatchObject({ standing: 'refused', detail: 'They have been answered meanwhile.' })
    expect(rows.find(({ recordId }) => recordId === still!.recordId)).toMatchObject({ standing: 'texted' })
    expect(carrier.asked.filter(({ text }) => text.includes('Pine Street')).map(({ to }) => to)).toEqual([still!.e164])
  })

  it('that was taken back before it left leaves them waiting as before', async () => {
    const [one] = await leads('Una')
    const id = await sentTo([one!])
    await hear(one!, 'When?')
    const waiting = (await waits()).find(({ remote }) => remote === one!.e164)!
    const answer = await begunTo(id, [one!])
    for (let i = 0; i < 9; i++) carrier.next({ kind: 'no-room', afterMs: 1_000 })
    await start(answer)
    await seconds(2)
    expect((await waits()).find(({ remote }) => remote === one!.e164)).toBeUndefined()
    await turnBulk(firm.ada, answer, 'stop', now)
    expect((await waits()).find(({ remote }) => remote === one!.e164)).toMatchObject({ waitsSince: waiting.waitsSince })
    expect(await rowsOf(answer)).toMatchObject([{ standing: 'ready' }])
  })

  it('is for those whom the asker may see, out of a bulk text of theirs', async () => {
    const [one] = await leads('Una')
    const id = await sentTo([one!])
    await expect(begunTo(id, [one!], 'Hi', firm.mika)).rejects.toMatchObject({ details: { status: 404 } })
    await expect(begunTo(id, [await makeLead(firm.ada)])).rejects.toMatchObject({ details: { fields: { selection: expect.stringContaining('Nobody') } } })
  })
})

describe('two audiences of one occasion', () => {
  const beside = (besideId: string, who: Lead[], body: string) =>
    begin({ besideId, selection: selectionOf(who) }, body, { lineId: firm.portland.id })

  it('have a wording each, and whoever is in both gets one text', async () => {
    const [baker, both, grocer] = await leads('Bea', 'Bo', 'Gro')
    const occasion = { lineId: firm.portland.id, occasion: 'Demonstration day', place: 'Halifax' }
    const bakers = await begin({ selection: selectionOf([baker!, both!]) }, 'Bakers: on the 12th?', occasion)
    const grocers = await beside(bakers, [both!, grocer!], 'Grocers: on the 12th?')
    expect(await readBulk(firm.ada, grocers)).toMatchObject({ leftOut: [{ reason: 'other-audience', people: 1 }], counts: { ready: 1 } })
    for (const id of [bakers, grocers]) await start(id)
    await seconds(5)
    expect(carrier.asked.map(({ to, text }) => [to, text]).sort()).toEqual([
      [baker!.e164, 'Bakers: on the 12th?'], [both!.e164, 'Bakers: on the 12th?'], [grocer!.e164, 'Grocers: on the 12th?'],
    ].sort())
  })

  it('may both be read by those who may see them, with what has become of each', async () => {
    const [baker, grocer] = await leads('Bea', 'Gro')
    const bakers = await begin({ selection: selectionOf([baker!]) }, 'Bakers?', { lineId: firm.portland.id })
    const grocers = await beside(bakers, [grocer!], 'Grocers?')
    await start(bakers)
    await seconds(3)
    await hear(baker!, 'Yes')
    expect((await readBulk(firm.ada, bakers)).audiences).toMatchObject([
      { id: bakers, state: 'done', answered: { hits: 1, of: 1 } },
      { id: grocers, state: 'checked', answered: { hits: 0, of: 0 } },
    ])
    await expect(beside(uuid(), [grocer!], 'x')).rejects.toMatchObject({ details: { status: 404 } })
  })
})

describe('a pace by answers', () => {
  const paced = async (people: Lead[], answersAnHour: number) => {
    const id = await begin({ selection: selectionOf(people) }, 'Shall I keep you a place?', { lineId: firm.portland.id })
    await startBulk(firm.ada, id, startBulkForm.cast({ answersAnHour }), now)
    return id
  }

  it('spreads the texts so that no more answers come than can be worked off, by what similar ones have brought', async () => {
    const many = await leads(...Array.from({ length: 40 }, (_, i) => `Similar ${i}`))
    const before = await begin({ selection: selectionOf(many) }, 'Shall I keep you a place?', { lineId: firm.portland.id })
    await start(before)
    await seconds(42)
    for (const one of many.slice(0, 20)) await hear(one, 'Yes')
    now = later(now, 2 * 86_400_000)
    const id = await begin({ selection: selectionOf(await leads('Una', 'Dos')) }, 'And this time?', { lineId: firm.portland.id })
    const slow = await previewPlan(firm.ada, id, startBulkForm.cast({ answersAnHour: 30 }), now)
    const { hits, of } = slow.expected.brought
    expect(hits).toBeGreaterThanOrEqual(20)
    expect(of).toBeGreaterThanOrEqual(40)
    expect(slow.expected.answering).toBe(3)
    // were half of them to answer, sixty an hour would bring the thirty
    const everyMs = Math.ceil(3_600_000 / 30 * hits / of)
    expect(slow.lines).toMatchObject([{ everyMs }])
    expect(slow.last! - slow.runs[0]!.from).toBe(everyMs)
    const fast = await previewPlan(firm.ada, id, startBulkForm.cast({}), now)
    expect(fast.lines).toMatchObject([{ everyMs: 1_000 }])
    expect(fast.expected.busiest!.high).toBeGreaterThanOrEqual(fast.expected.busiest!.likely)
  })

  it('waits when they pile up, goes on by itself when they are worked off, and writes down why', async () => {
    const people = await leads('Una', 'Dos', 'Tre', 'Fyra', 'Cinq', 'Sei')
    // two an hour at about fifteen of a hundred: one text every few minutes
    const id = await paced(people, 2)
    const sent = () => carrier.asked.filter(({ text }) => text.startsWith('Shall')).map(({ to }) => to)
    const minutes = async (count: number) => {
      for (let i = 0; i < count * 4; i++) await drain(now = later(now, 15_000))
    }
    while (sent().length < 2) await minutes(1)
    const [first, second] = sent().map(number => people.find(({ e164 }) => e164 === number)!)
    await hear(first!, 'When?')
    await hear(second!, 'When?')
    await minutes(30)
    expect(sent()).toHaveLength(2)
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'running', waitsSince: expect.any(Number), pace: [{ what: 'waits', waiting: 2, anHour: 2 }] })
    await sendText(firm.ada, textTo(first!.phoneId, firm.portland, { text: 'At ten.' }), now)
    await minutes(30)
    expect(sent().length).toBeGreaterThan(2)
    expect(await readBulk(firm.ada, id)).toMatchObject({ waitsSince: null, pace: [{ what: 'goes-on', waiting: 1 }, { what: 'waits' }] })
    // by hand it goes as fast as its line again
    await setPace(firm.ada, id, null, now)
    await seconds(6)
    expect(sent()).toHaveLength(6)
    expect(await readBulk(firm.ada, id)).toMatchObject({ answersAnHour: null, pace: [{ what: 'set', anHour: null }, { what: 'goes-on' }, { what: 'waits' }] })
    await seconds(2)
    await expect(setPace(firm.ada, id, 5, now)).rejects.toMatchObject({ details: { type: 'not-now' } })
    await expect(setPace(firm.mika, id, 5, now)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it('leaves the line to others meanwhile, as far as it leaves it free', async () => {
    const slow = await paced(await leads('Una', 'Dos', 'Tre'), 2)
    const quick = await begin({ selection: selectionOf(await leads('Fyra', 'Cinq')) }, 'Winter tyres?', { lineId: firm.portland.id })
    const plan = await previewPlan(firm.ada, quick, startBulkForm.cast({}), now)
    expect(plan.last! - now.getTime()).toBeLessThan(5_000)
    await turnBulk(firm.ada, slow, 'stop', now)
  })
})

describe('what would make it so', () => {
  it('is another line, where several suit: spread over them it is out in time, and whoever has a usual one keeps it', async () => {
    const people = await leads(...Array.from({ length: 60 }, (_, i) => `Many ${i}`))
    // one a second over the nearest line takes a minute, and the event is in less
    const id = await begin({ selection: selectionOf(people) }, 'Now or never', { eventAt: now.getTime() + 40_000 })
    const plan = await previewPlan(firm.ada, id, startBulkForm.cast({}), now)
    expect(plan.lines).toHaveLength(1)
    expect(plan.left).toMatchObject([{ why: 'after-event' }])
    expect(plan.spread).toMatchObject({ left: 0 })
    expect(plan.spread!.lines.length).toBeGreaterThan(1)
    await hear(people[0]!, 'Hello')
    await writeBulk(firm.ada, id, writeBulkForm.validateSync({ name: 'x', body: 'Now or never', spread: true, eventAt: now.getTime() + 40_000 }), now)
    await startCheck(firm.ada, id, now)
    await drain(now)
    const spread = await previewPlan(firm.ada, id, startBulkForm.cast({}), now)
    expect(spread.spread).toBeNull()
    expect(spread.lines.length).toBeGreaterThan(1)
    expect(spread.lines.every(({ people: share }) => share > 10)).toBe(true)
    expect((await rowsOf(id)).find(({ recordId }) => recordId === people[0]!.recordId)!.line).toBe('Portland line')
  })
})
