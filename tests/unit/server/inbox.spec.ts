import { eq, sql } from 'drizzle-orm'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { wallOf } from '~~/core/hours/schedule'
import { zoneRules } from '~~/core/hours/zones'
import { afterEvent, NOTHING_OWED, type Owed, type OwedEvent } from '~~/core/owed/owed'
import type { InboxPlace, TextShelf } from '~~/shared/inbox'
import { listInboxViews, removeInboxView, saveInboxView } from '~~/server/texting/inbox-views'
import { inboxQuery, inboxTextsQuery, inboxViewForm, type InboxQuery } from '~~/shared/schemas/inbox'
import { dial } from '~~/server/calling/dial'
import { dialForm, requestForm } from '~~/shared/schemas/calling'
import { readNotices } from '~~/server/pages/notices'
import { readInbox } from '~~/server/pages/inbox'
import { readConversation, readShelf } from '~~/server/pages/shelf'
import { readToday } from '~~/server/pages/today'
import { readRecord } from '~~/server/pages/record'
import { assign, whoMayHave } from '~~/server/texting/assign'
import { takeEvent } from '~~/server/texting/events'
import { putBack, settleConversation } from '~~/server/texting/owed'
import { seeConversation, seeRecord } from '~~/server/texting/seen'
import { sendText } from '~~/server/texting/send'
import { changeLine } from '~~/server/texting/line-edit'
import { signInAs } from '~~/server/identity/sign-in'
import { tx } from '~~/server/db/door'
import { line } from '~~/server/db/schema'
import { lineForm } from '~~/shared/schemas/line'
import { settleRequest } from '~~/server/tasks/request'
import { openTasks } from '~~/server/tasks/tasks'
import { takeBack } from '~~/server/texting/take-back'
import { readTimeline } from '~~/server/timeline/read'
import { readTexts } from '~~/server/timeline/texts'
import { addRecord } from '~~/server/records/save'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, form, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
let exchange: ReturnType<typeof fakeExchange>
beforeEach(() => {
  exchange = fakeExchange()
  fakeCarrier()
})

let clock = 60_000
const next = () => later(DAY, clock += 1_000)
const receive = (from: string, text: string, at = next()) =>
  takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, at)
const asked = (values: Partial<InboxQuery> = {}) => inboxQuery.cast(values)
const page = (who = firm.ada, values: Partial<InboxQuery> = {}) => readInbox(who, asked(values))
const all = async (who = firm.ada, values: Partial<InboxQuery> = {}) => {
  const { owed, others } = await page(who, values)
  return [...owed, ...others]
}
const itemOf = async (e164: string, who = firm.ada) => (await all(who)).find(({ remote }) => remote === e164)!
const onShelf = async (e164: string, who = firm.ada) => (await readShelf(who)).items.some(({ remote }) => remote === e164)
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const wall = (at: Date) => ({ wallTime: wallOf(at.getTime(), zoneRules('Etc/UTC')!).slice(0, 16), zone: 'Etc/UTC' })

async function wroteToUs(text = 'Is it still free?', who = firm.ada) {
  const lead = await makeLead(who)
  await receive(lead.e164, text)
  return { ...lead, conversationId: (await itemOf(lead.e164)).conversationId }
}

describe('the inbox', () => {
  it('has those that wait first, the longest waiting on top, and the others by their newest text', async () => {
    const [one, two, three] = [await wroteToUs(), await wroteToUs('second'), await wroteToUs('third')]
    await settleConversation(firm.ada, two.conversationId, next())
    const { owed, others } = await page()
    const places = [one, three].map(({ e164 }) => owed.findIndex(({ remote }) => remote === e164))
    expect(places[0]).toBeGreaterThanOrEqual(0)
    expect(places[1]).toBeGreaterThan(places[0]!)
    expect(others[0]).toMatchObject({ remote: two.e164, waitsSince: null, last: { words: 'second', ours: false } })
    expect((await readInbox(firm.noor, asked())).owed.map(({ remote }) => remote)).not.toContain(one.e164)
  })

  it('is narrowed by filters that combine, by line, by module, by names, numbers and words of its texts', async () => {
    const lead = await wroteToUs('About the zephyr wheels')
    await receive('+447700900851', 'Who are you?')
    const has = async (e164: string, values: Partial<InboxQuery>) => (await all(firm.ada, values)).some(({ remote }) => remote === e164)
    expect(await has(lead.e164, { words: 'zephyr whe' })).toBe(true)
    expect(await has(lead.e164, { words: lead.e164.slice(-7) })).toBe(true)
    expect(await has(lead.e164, { words: 'quagga' })).toBe(false)
    expect(await has('+447700900851', { show: 'no-record,received' })).toBe(true)
    expect(await has(lead.e164, { show: 'no-record' })).toBe(false)
    expect(await has(lead.e164, { show: 'owed,received,unseen,mine', module: 'lead', lineId: firm.portland.id })).toBe(true)
    expect(await has(lead.e164, { show: 'sent' })).toBe(false)
    expect(await has(lead.e164, { module: 'candidate' })).toBe(false)
    await sendText(firm.ada, { ...textTo(lead.phoneId, firm.portland), later: wall(later(DAY, 5 * 3_600_000)), nightAllowed: true }, next())
    expect(await has(lead.e164, { show: 'scheduled' })).toBe(true)
    expect(await has(lead.e164, { show: 'failed' })).toBe(false)
    expect(() => inboxQuery.validateSync({ show: 'owed,everything' })).toThrow('no such filter')
  })

  it('goes on below the last one, with none twice and none left out', async () => {
    for (let i = 0; i < 45; i++) {
      const remote = `+4477009${String(100 + i).padStart(5, '0')}`
      await receive(remote, `text ${i}`)
      await settleConversation(firm.ada, (await itemOf(remote)).conversationId, next())
    }
    const first = await page()
    const last = first.others.at(-1)!
    expect([first.others.length, first.next]).toEqual([40, { at: last.lastAt, id: last.conversationId }])
    const second = await page(firm.ada, { beforeAt: first.next!.at, beforeId: first.next!.id })
    const ids = [...first.others, ...second.others].map(({ conversationId }) => conversationId)
    expect(new Set(ids).size).toBe(ids.length)
    expect([second.owed, second.others.every(({ lastAt }) => lastAt <= last.lastAt)]).toEqual([[], true])
  })

  it('has whom I have just called first among those that are settled, and nobody who was only called', async () => {
    const [earlier, newest, onlyCalled] = [await wroteToUs(), await wroteToUs(), await makeLead(firm.ada)]
    const at = later(DAY, 120_000)
    for (const one of [earlier, newest]) await settleConversation(firm.ada, one.conversationId, at)
    for (const { phoneId } of [earlier, onlyCalled]) {
      const form = dialForm.validateSync({ id: uuid(), phoneId, lineId: firm.portland.id, nightAllowed: true })
      await dial(firm.ada, form, at)
      await exchange.tell(form.id, { kind: 'ended', at: later(DAY, 180_000).getTime(), why: 'no-answer', side: 'network' })
    }
    expect((await page()).others[0]).toMatchObject({ remote: earlier.e164, lastAt: later(DAY, 180_000).getTime() })
    expect(await itemOf(onlyCalled.e164)).toBeUndefined()
  })
})

describe('a view of the inbox', () => {
  it('is saved for oneself or the team, changed and removed by whoever may', async () => {
    const form = (values: object = {}) => inboxViewForm.validateSync({ id: uuid(), name: 'Failed ones', asked: { show: 'failed,mine' }, ...values })
    const own = form()
    expect(await saveInboxView(firm.ada, own, DAY)).toMatchObject([
      { name: 'Failed ones', shared: false, owner: 'Ada Lund', mayEdit: true, asked: { show: 'failed,mine', words: '' } },
    ])
    expect(await listInboxViews(firm.mika)).toEqual([])
    await expect(saveInboxView(firm.mika, { ...own, name: 'Mine now' }, DAY)).rejects.toMatchObject(problem(404))
    const shared = form({ name: 'Team', shared: true })
    await saveInboxView(firm.ada, shared, DAY)
    expect(await listInboxViews(firm.mika)).toMatchObject([{ name: 'Team', shared: true, mayEdit: false }])
    await expect(removeInboxView(firm.mika, shared.id)).rejects.toMatchObject(problem(403))
    await removeInboxView(firm.odile, shared.id)
    expect((await saveInboxView(firm.ada, { ...own, name: 'Renamed' }, DAY)).map(({ name }) => name)).toEqual(['Renamed'])
    expect(await removeInboxView(firm.ada, own.id)).toEqual([])
    expect(() => form({ name: '' })).toThrow('Give the view a name.')
    expect(() => form({ asked: { show: 'everything' } })).toThrow('no such filter')
  })
})

describe('seen', () => {
  it('is mine alone, and settles nothing; what comes in afterwards has not been seen', async () => {
    const { e164, conversationId, recordId } = await wroteToUs()
    expect(await itemOf(e164)).toMatchObject({ unseen: true })
    await seeConversation(firm.ada, conversationId, next())
    expect(await itemOf(e164)).toMatchObject({ unseen: false, waitsSince: expect.any(Number) })
    expect(await itemOf(e164, firm.mika)).toMatchObject({ unseen: true })
    await receive(e164, 'Hello?')
    expect(await itemOf(e164)).toMatchObject({ unseen: true })
    // on the record's page it is seen just as well
    await seeRecord(firm.ada, recordId, next())
    expect(await itemOf(e164)).toMatchObject({ unseen: false })
    await expect(seeConversation(firm.noor, conversationId, next())).rejects.toMatchObject(problem(404))
    await expect(seeRecord(firm.noor, recordId, next())).rejects.toMatchObject(problem(404))
  })
})

describe('what somebody asks for', () => {
  it('becomes a task once, or is sent away; by those who may change the record', async () => {
    const { e164, recordId } = await wroteToUs('Can you ring me tomorrow at 3?')
    await receive(e164, 'And please send the address')
    const entries = async () => (await readTimeline(firm.ada, recordId)).entries.filter(({ kind }) => kind === 'text-in')
    const [send, call] = await entries()
    expect([send!.message!.requestSettled, call!.message!.requestSettled]).toEqual([false, false])
    const form = (task: object | null, activityId = call!.id) => requestForm.validateSync({ activityId, task })
    const task = { id: uuid(), kind: 'call-back', title: 'Call back', day: '2026-11-26', time: '15:00' }
    await expect(settleRequest(firm.noor, recordId, form(task), next())).rejects.toMatchObject(problem(404))
    await settleRequest(firm.ada, recordId, form(task), next())
    // a colleague who presses at the same time makes no second one
    await settleRequest(firm.mika, recordId, form({ ...task, id: uuid() }), next())
    await settleRequest(firm.ada, recordId, form(null, send!.id), next())
    expect((await openTasks(firm.ada, { recordId })).map(({ title, wallTime }) => [title, wallTime])).toEqual([['Call back', '2026-11-26T15:00']])
    expect((await entries()).map(({ message }) => message!.requestSettled)).toEqual([true, true])
    await expect(settleRequest(firm.ada, (await makeLead(firm.ada)).recordId, form(null), next())).rejects.toMatchObject(problem(404))
  })
})

describe('the order of a line', () => {
  const order = (...who: (typeof firm.ada)[]) =>
    tx(database => database.update(line).set({ takeOrder: who.map(({ id }) => id), tookLast: null }).where(eq(line.id, firm.portland.id)))
  const whoHas = (numbers: string[]) =>
    Promise.all(numbers.map(async number => (await itemOf(number, firm.odile)).assignee?.firstName ?? null))
  const strangers = async (...numbers: string[]) => {
    for (const number of numbers) {
      await receive(number, 'Thanks')
      await drain(later(DAY, clock))
    }
    return whoHas(numbers)
  }

  it('gives what nobody has to whoever is next of those who are signed in, and tells them', async () => {
    for (const { id } of [firm.ada, firm.odile]) await signInAs(id, { address: 'test' }, next())
    // what the tests before left
    await drain(later(DAY, clock))
    await order(firm.ada, firm.mika, firm.odile)
    expect(await strangers('+447700900881', '+447700900882', '+447700900883')).toEqual(['Ada', 'Odile', 'Ada'])
    const own = await wroteToUs('It has an owner')
    await drain(later(DAY, clock))
    expect((await itemOf(own.e164)).assignee).toBeNull()
    // who has it keeps it
    expect(await strangers('+447700900882')).toEqual(['Odile'])
    const { notices } = await readNotices(firm.odile, { after: DAY.getTime() }, later(DAY, clock))
    expect(notices.filter(({ kind, remote }) => kind === 'handed' && remote === '+447700900882')).toMatchObject([{ by: null, unseen: true }])
  })

  it('gives each of those that come in at once to another', async () => {
    await order(firm.ada, firm.odile)
    const numbers = ['+447700900886', '+447700900887', '+447700900888', '+447700900889']
    for (const number of numbers) await receive(number, 'Thanks')
    await drain(later(DAY, clock))
    expect((await whoHas(numbers)).sort()).toEqual(['Ada', 'Ada', 'Odile', 'Odile'])
  })

  it('leaves it to all where nobody of them is there, and may not name who does not answer the line', async () => {
    await order(firm.mika)
    expect(await strangers('+447700900884')).toEqual([null])
    await order()
    expect(await strangers('+447700900885')).toEqual([null])
    const values = { carrier: 'practice', languages: [], records: false, ownerFirst: false, ringSeconds: 25 }
    await expect(changeLine(firm.rafe, firm.portland.id, lineForm.validateSync({ ...values, takeOrder: [firm.noor.id] }), DAY))
      .rejects.toMatchObject(problem(422, { fields: { takeOrder: expect.stringContaining('does not answer') } }))
  })
})

describe('past notices', () => {
  it('are what came in over my lines and what was assigned to me, seen or not, and waiting or not', async () => {
    const from = next()
    const { e164, conversationId } = await wroteToUs('Do you have a trike?')
    const ref = await exchange.ring(e164, firm.portland.e164, next())
    await exchange.tellOf(ref, { kind: 'ended', at: next().getTime(), why: 'no-answer', side: 'network' })
    await assign(firm.odile, conversationId, { colleagueId: firm.ada.id, why: 'knows trikes' }, next())
    const mine = async (who: typeof firm.ada, after = from.getTime()) =>
      (await readNotices(who, { after }, later(DAY, clock))).notices.filter(one => one.conversationId === conversationId)
    expect(await mine(firm.ada)).toMatchObject([
      { kind: 'handed', by: 'Odile', words: 'knows trikes', unseen: true, waits: true },
      { kind: 'missed-call', by: null, words: '', unseen: true },
      { kind: 'text', words: 'Do you have a trike?', unseen: true, line: 'Portland line', remote: e164 },
    ])
    expect((await mine(firm.mika)).map(({ kind }) => kind)).toEqual(['missed-call', 'text'])
    expect(await mine(firm.noor)).toEqual([])
    await seeConversation(firm.ada, conversationId, next())
    await settleConversation(firm.ada, conversationId, next())
    expect((await mine(firm.ada)).map(({ unseen, waits }) => [unseen, waits])).toEqual(Array(3).fill([false, false]))
    expect(await mine(firm.ada, DAY.getTime() + clock)).toEqual([])
  })
})

describe('putting back', () => {
  it('takes it away until its moment, brings it back then, and says why on the timeline', async () => {
    const { e164, conversationId, recordId } = await wroteToUs()
    const at = later(DAY, 40 * 3_600_000)
    await putBack(firm.ada, conversationId, { later: wall(at), why: 'asks at the workshop first' }, next())
    expect(await itemOf(e164)).toMatchObject({ waitsSince: null, returnsAt: at.getTime() })
    expect(await onShelf(e164)).toBe(false)
    expect((await readTimeline(firm.mika, recordId)).entries[0]).toMatchObject({ kind: 'put-back', words: 'asks at the workshop first' })
    expect((await readConversation(firm.ada, conversationId, DAY)).entries[0]).toMatchObject({ kind: 'put-back' })
    await drain(later(at, -60_000))
    expect(await onShelf(e164)).toBe(false)
    await drain(later(at, 1_000))
    expect(await itemOf(e164)).toMatchObject({ waitsSince: at.getTime(), waitsFor: 'put-back', returnsAt: null })
    await settleConversation(firm.mika, conversationId, later(at, 2_000))
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({ kind: 'nothing-needed', colleague: { firstName: 'Mika' } })
    expect(await onShelf(e164)).toBe(false)
  })

  it('is refused for a moment that has passed, and for whoever does not answer the line', async () => {
    const { conversationId } = await wroteToUs()
    await expect(putBack(firm.ada, conversationId, { later: wall(later(DAY, -3_600_000)), why: '' }, next()))
      .rejects.toMatchObject(problem(422, { fields: { 'later.wallTime': expect.stringContaining('has passed') } }))
    await expect(putBack(firm.noor, conversationId, { later: null, why: '' }, next())).rejects.toMatchObject(problem(404))
  })

  it('of a number on no record comes along when it becomes one', async () => {
    await receive('+447700900852', 'Hello')
    const { conversationId } = await itemOf('+447700900852')
    await putBack(firm.ada, conversationId, { later: null, why: 'who is it' }, next())
    const id = uuid()
    await addRecord(firm.ada, {
      ...form({ firstName: 'Known', phones: [{ id: null, label: 'mobile', typed: '+447700900852' }] }), id, module: 'lead',
    }, next())
    expect((await readTimeline(firm.ada, id)).entries.map(({ kind, words }) => [kind, words])).toContainEqual(['put-back', 'who is it'])
  })
})

describe('assigning', () => {
  it('makes it the colleague’s to answer, says so to everybody, and can be given back', async () => {
    const { e164, conversationId, recordId } = await wroteToUs()
    expect((await whoMayHave(firm.ada, conversationId)).map(({ id }) => id).sort())
      .toEqual([firm.ada.id, firm.mika.id, firm.odile.id, firm.rafe.id].sort())
    await expect(assign(firm.ada, conversationId, { colleagueId: firm.noor.id, why: '' }, next()))
      .rejects.toMatchObject(problem(422, { fields: { colleagueId: expect.stringContaining('do not answer') } }))
    await assign(firm.ada, conversationId, { colleagueId: firm.mika.id, why: 'knows these bikes' }, next())
    expect([await onShelf(e164), await onShelf(e164, firm.mika)]).toEqual([false, true])
    expect(await itemOf(e164)).toMatchObject({ whose: 'colleague', assignee: { firstName: 'Mika' } })
    expect(await itemOf(e164, firm.mika)).toMatchObject({ whose: 'me' })
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({
      kind: 'assigned', words: 'knows these bikes', data: { to: 'Mika' },
    })
    await assign(firm.mika, conversationId, { colleagueId: null, why: 'no time' }, next())
    expect([await onShelf(e164), await itemOf(e164)]).toMatchObject([true, { whose: 'nobody' }])
  })

  it('owes an answer where none was owed, unless I take it myself', async () => {
    const { e164, conversationId } = await wroteToUs()
    await settleConversation(firm.ada, conversationId, next())
    await assign(firm.ada, conversationId, { colleagueId: firm.ada.id, why: '' }, next())
    expect(await itemOf(e164)).toMatchObject({ waitsSince: null, assignee: { id: firm.ada.id } })
    await assign(firm.ada, conversationId, { colleagueId: firm.mika.id, why: '' }, next())
    expect(await itemOf(e164)).toMatchObject({ waitsFor: 'handed' })
  })
})

describe('two who answer the same', () => {
  const answer = (who: typeof firm.ada, to: { phoneId: string }, text: string, seenUntil: number | null) =>
    sendText(who, { ...textTo(to.phoneId, firm.portland), text, seenUntil }, next())

  it('both answer only if the second has seen the first', async () => {
    const lead = await wroteToUs()
    const opened = next().getTime()
    const tries = await Promise.allSettled([answer(firm.ada, lead, 'From Ada', opened), answer(firm.mika, lead, 'From Mika', opened)])
    expect(tries.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const { reason } = tries.find(one => one.status === 'rejected') as PromiseRejectedResult
    expect(reason).toMatchObject(problem(409, { type: 'answered', detail: expect.stringMatching(/(Ada|Mika) has answered/) }))
    const { seenUntil } = (reason as { details: { seenUntil: number } }).details
    const second = tries[0]!.status === 'rejected' ? firm.ada : firm.mika
    await answer(second, lead, 'I have seen it', seenUntil)
    // a third one who has seen neither is asked about the newest
    await expect(answer(firm.odile, lead, 'And I', opened)).rejects.toMatchObject(problem(409, { detail: expect.stringContaining('I have seen it') }))
  })

  it('is not asked about own answers, nor about one that was taken back', async () => {
    const lead = await wroteToUs()
    const opened = next().getTime()
    await answer(firm.ada, lead, 'One', opened)
    const two = await answer(firm.ada, lead, 'Two', opened)
    await expect(answer(firm.mika, lead, 'Three', opened)).rejects.toMatchObject(problem(409))
    await takeBack(firm.ada, two.id, next())
    await expect(answer(firm.mika, lead, 'Three', opened)).rejects.toMatchObject(problem(409, { detail: expect.stringContaining('One') }))
    expect((await readRecord(firm.ada, lead.recordId, DAY)).id).toBe(lead.recordId)
  })
})

describe('the texts as such', () => {
  it('are those of my lines, by what became of them, with whom they are with', async () => {
    const carrier = fakeCarrier()
    const lead = await wroteToUs('Received word')
    const said = async (what: TextShelf, who = firm.ada) =>
      (await readTexts(who, inboxTextsQuery.cast({ what }))).texts.map(({ entry, name }) => [entry.words, name])
    await drain(later(DAY, clock + 20_000))
    carrier.next({ kind: 'refused', code: 'unreachable' })
    const failing = await sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'Will fail' }), next())
    await drain(new Date(failing.leavesAt + 1_000))
    await sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'To come', later: wall(later(DAY, 50 * 3_600_000)), nightAllowed: true }), next())
    expect((await said('received'))[0]).toEqual(['Received word', 'Iris Holm'])
    expect((await said('scheduled'))[0]).toEqual(['To come', 'Iris Holm'])
    expect((await said('failed'))[0]).toEqual(['Will fail', 'Iris Holm'])
    expect(await said('sent')).not.toContainEqual(['To come', 'Iris Holm'])
    expect(await said('received', firm.noor)).toEqual([])
  })
})

describe('for the lead', () => {
  it('says by line who waits, how many are with nobody, and since when, of the lines they answer for', async () => {
    const before = (await readToday(firm.odile, DAY)).lines!.find(({ id }) => id === firm.portland.id)!
    const { conversationId } = await wroteToUs()
    await assign(firm.ada, conversationId, { colleagueId: firm.mika.id, why: '' }, next())
    const { lines } = await readToday(firm.odile, DAY)
    expect(lines!.find(({ id }) => id === firm.portland.id)).toEqual({
      ...before, whose: 'Sales', waiting: before.waiting + 1, withNobody: before.withNobody,
    })
    expect(lines!.map(({ oldest }) => oldest)).toEqual([...lines!.map(({ oldest }) => oldest)].sort((a, b) => a - b))
    // hers alone to answer, and no lead's either
    await takeEvent('practice', {
      id: uuid(), at: next(), kind: 'received', ref: uuid(), from: '+447700900853', to: firm.own.e164, text: 'private',
    }, next())
    const own = async (who: typeof firm.ada) => (await readToday(who, DAY)).lines?.some(({ id }) => id === firm.own.id)
    expect([await own(firm.ada), await own(firm.rafe)]).toEqual([undefined, true])
  })
})

it('keeps of each conversation whether anything came in, and went out', async () => {
  const { rows } = await tx(database => database.execute<{ remote: string }>(sql`
    select v.remote from conversation v where came_in <> exists (select 1 from message m where m.conversation_id = v.id and m.direction = 'in')
      or went_out <> exists (select 1 from message m where m.conversation_id = v.id and m.direction = 'out')`))
  expect(rows).toEqual([])
  const { rows: [seen] } = await tx(database => database.execute(sql`
    select count(*) filter (where came_in) > 0 as "in", count(*) filter (where went_out) > 0 as out, count(*) filter (where not went_out) > 0 as only from conversation`))
  expect(seen).toEqual({ in: true, out: true, only: true })
})

it('keeps what is owed as the rules say, whatever happens in whatever order, and counts each once', async () => {
  const lead = await wroteToUs()
  const kinds = fc.constantFrom('text-in', 'answered', 'nothing-needed', 'put-back', 'later', 'handed', 'due', 'read', 'missed-call', 'talked')
  const moves = fc.array(fc.tuple(kinds, fc.nat(2)), { minLength: 1, maxLength: 9 })
  await fc.assert(fc.asyncProperty(moves, async (steps) => {
    await assign(firm.ada, lead.conversationId, { colleagueId: null, why: '' }, next())
    await settleConversation(firm.ada, lead.conversationId, next())
    let model: Owed = NOTHING_OWED
    let assignee: string | null = null
    const happens = (event: OwedEvent) => model = afterEvent(model, event)
    for (const [kind, whom] of steps) {
      const at = next()
      const who = [firm.ada, firm.mika, firm.odile][whom]!
      if (kind === 'text-in') await receive(lead.e164, `text ${clock}`, at)
      else if (kind === 'answered') await sendText(who, { ...textTo(lead.phoneId, firm.portland), text: `answer ${clock}` }, at)
      else if (kind === 'nothing-needed') await settleConversation(who, lead.conversationId, at)
      else if (kind === 'put-back') await putBack(who, lead.conversationId, { later: null, why: '' }, at)
      else if (kind === 'read') await seeConversation(who, lead.conversationId, at)
      else if (kind === 'missed-call') {
        const ref = await exchange.ring(lead.e164, firm.portland.e164, at)
        await exchange.tellOf(ref, { kind: 'ended', at: at.getTime(), why: 'no-answer', side: 'network' })
      }
      else if (kind === 'talked') {
        const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id, nightAllowed: true })
        await dial(who, form, at)
        await exchange.tell(form.id, { kind: 'answered', at: at.getTime(), by: 'person' })
        await exchange.tell(form.id, { kind: 'ended', at: at.getTime() + 1, why: 'hung-up', side: 'us' })
      }
      if (kind === 'later') {
        // whole minutes, as people choose them
        const until = new Date(Math.ceil((at.getTime() + 61_000) / 60_000) * 60_000)
        await putBack(who, lead.conversationId, { later: wall(until), why: '' }, at)
        happens({ kind: 'put-back', at: at.getTime(), until: until.getTime() })
      }
      else if (kind === 'due') {
        clock += 180_000
        await drain(later(DAY, clock))
        happens({ kind: 'due', at: DAY.getTime() + clock })
      }
      else if (kind === 'handed') {
        await assign(firm.ada, lead.conversationId, { colleagueId: who.id, why: '' }, at)
        if (assignee !== who.id && who.id !== firm.ada.id) happens({ kind: 'handed', at: at.getTime() })
        assignee = who.id
      }
      else happens(kind === 'put-back' ? { kind, at: at.getTime(), until: null } : { kind, at: at.getTime() })
      const item = await itemOf(lead.e164)
      expect({ since: item.waitsSince, why: item.waitsFor, returnsAt: item.returnsAt }).toEqual(model)
      for (const who of [firm.ada, firm.mika, firm.odile])
        expect(await onShelf(lead.e164, who)).toBe(model.since !== null && (assignee === null || assignee === who.id))
    }
  }), { numRuns: 25 })
}, 240_000)

describe('a filter that no index answers', () => {
  it('looks through so many conversations at a time, and the next page goes on where it came to', async () => {
    await tx(db => db.execute(sql`
      insert into conversation (id, kind, line_id, remote, last_at, came_in)
      select gen_random_uuid(), 'text', ${firm.portland.id}::uuid, '+1998' || lpad(n::text, 7, '0'), ${DAY.toISOString()}::timestamptz - n * interval '1 minute', true
      from generate_series(1, 1200) n`))
    await receive('+447700900987', 'The only one that is asked for')
    const { conversationId } = await itemOf('+447700900987')
    await settleConversation(firm.ada, conversationId, next())
    // older than all the others
    await tx(db => db.execute(sql`update conversation set last_at = ${DAY.toISOString()}::timestamptz - interval '10 days' where id = ${conversationId}::uuid`))
    const found: string[] = []
    let looks = 0
    for (let from: InboxPlace | null | undefined; from !== null; looks++) {
      const { others, next } = await page(firm.ada, { words: '900987', ...from && { beforeAt: from.at, beforeId: from.id } })
      found.push(...others.map(({ remote }) => remote))
      from = next
    }
    expect({ found, looks }).toEqual({ found: ['+447700900987'], looks: 3 })
  })
})
