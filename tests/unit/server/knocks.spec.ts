import { v7 as uuid } from 'uuid'
import { eq } from 'drizzle-orm'
import { KNOCK_KINDS, type KnockKind } from '~~/core/knock/kinds'
import { addTask, changeTask, openTasks, setDone } from '~~/server/tasks/tasks'
import { assign } from '~~/server/texting/assign'
import { takeEvent } from '~~/server/texting/events'
import { settleConversation } from '~~/server/texting/owed'
import { sendText } from '~~/server/texting/send'
import { tx } from '~~/server/db/door'
import { line } from '~~/server/db/schema'
import { setHabits } from '~~/server/identity/habits'
import type { SignedIn } from '~~/server/identity/sign-in'
import { knockByTheClock } from '~~/server/knocks/by-the-clock'
import { seeKnocks, takeKnock } from '~~/server/knocks/take'
import { readInbox } from '~~/server/pages/inbox'
import { readKnocks } from '~~/server/pages/knocks'
import { readTimeline } from '~~/server/timeline/read'
import { taskForm } from '~~/shared/schemas/calling'
import { inboxQuery } from '~~/shared/schemas/inbox'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let exchange: ReturnType<typeof fakeExchange>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => {
  exchange = fakeExchange()
  fakeCarrier()
})

const MINUTE = 60_000
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
let clock = 0
const now = () => later(DAY, clock)
const wait = (ms: number) => later(DAY, clock += ms)

async function comes(from: string, text: string, to = firm.portland): Promise<void> {
  const at = wait(1_000)
  await takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: to.e164, text }, at)
}
async function writes(from: string, text: string): Promise<void> {
  await comes(from, text)
  await drain(now())
}
async function rings(from: string): Promise<void> {
  const ref = await exchange.ring(from, firm.portland.e164, wait(1_000))
  await exchange.tellOf(ref, { kind: 'ended', at: wait(1_000).getTime(), why: 'no-answer', side: 'network' })
  await drain(now())
}
/** What knocks at somebody about a lead, the newest first. */
const at = async (who: SignedIn, { recordId }: { recordId: string }) =>
  (await readKnocks(who, now())).knocks.filter(one => one.record?.id === recordId)
const open = async (who: SignedIn, lead: { recordId: string }) => (await at(who, lead)).filter(({ state }) => state === 'open')
const habits = (who: SignedIn, told: { knocksOff?: KnockKind[], standInId?: string | null }) =>
  setHabits(who.id, { told: { chimes: true, notifies: false, knocksOff: [], standInId: null, mailMinutes: null, ...told } })
const conversationOf = async (e164: string) =>
  (await readInbox(firm.odile, inboxQuery.cast({}))).owed.find(({ remote }) => remote === e164)!.conversationId

describe('a question', () => {
  it('knocks at whoever has the person, and at nobody else', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Is the trike still free?')
    expect(await open(firm.ada, lead)).toMatchObject([
      {
        kind: 'question', words: 'Is the trike still free?', times: 1, step: 'owner', seen: false, line: 'Portland line', phoneId: lead.phoneId,
      },
    ])
    for (const who of [firm.mika, firm.odile, firm.noor, firm.rafe]) expect(await open(who, lead)).toEqual([])
    const calm = await makeLead(firm.ada)
    await writes(calm.e164, 'Thanks, that works')
    expect(await open(firm.ada, calm)).toEqual([])
  })

  it('knocks at whoever has the conversation, and at all of a line where it is with nobody on record', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Hello')
    await assign(firm.ada, await conversationOf(lead.e164), { colleagueId: firm.mika.id, why: '' }, now())
    await writes(lead.e164, 'Who comes tomorrow?')
    expect([await open(firm.ada, lead), await open(firm.mika, lead)]).toMatchObject([[], [{ kind: 'question' }]])
    await writes('+447700900861', 'Do you rent to Bristol?')
    const stranger = async (who: SignedIn) =>
      (await readKnocks(who, now())).knocks.filter(({ remote }) => remote === '+447700900861').length
    for (const who of [firm.ada, firm.mika, firm.odile]) expect(await stranger(who)).toBe(1)
    expect(await stranger(firm.noor)).toBe(0)
  })

  it('folds with the next, is unseen again by it, is over with the answer, and begins anew after that', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Is it free?')
    await seeKnocks(firm.ada, now())
    expect(await open(firm.ada, lead)).toMatchObject([{ seen: true }])
    await writes(lead.e164, 'And how much is it?')
    expect(await open(firm.ada, lead)).toMatchObject([{ seen: false, times: 2, words: 'And how much is it?' }])
    await sendText(firm.mika, textTo(lead.phoneId, firm.portland), wait(1_000))
    expect(await at(firm.ada, lead)).toMatchObject([{ state: 'settled', takenBy: null }])
    await writes(lead.e164, 'When?')
    expect(await open(firm.ada, lead)).toMatchObject([{ times: 1, words: 'When?' }])
    expect(await at(firm.ada, lead)).toHaveLength(2)
    await settleConversation(firm.ada, await conversationOf(lead.e164), wait(1_000))
    expect(await open(firm.ada, lead)).toEqual([])
  })

  it('knocks at nobody when it is read late, after its answer', async () => {
    const lead = await makeLead(firm.ada)
    const asked = wait(1_000)
    const text = { kind: 'received' as const, from: lead.e164, to: firm.portland.e164, text: 'Free?' }
    await takeEvent('practice', { ...text, id: uuid(), at: asked, ref: uuid() }, asked)
    await sendText(firm.ada, textTo(lead.phoneId, firm.portland), wait(1_000))
    await drain(now())
    expect(await at(firm.ada, lead)).toEqual([])
  })
})

describe('other kinds', () => {
  it('a second call that nobody took, while they wait for the first', async () => {
    const lead = await makeLead(firm.ada)
    await rings(lead.e164)
    expect(await open(firm.ada, lead)).toEqual([])
    await rings(lead.e164)
    await rings(lead.e164)
    expect(await open(firm.ada, lead)).toMatchObject([{ kind: 'second-missed-call', times: 2, words: '' }])
    await settleConversation(firm.ada, await conversationOf(lead.e164), wait(1_000))
    await rings(lead.e164)
    expect(await open(firm.ada, lead)).toEqual([])
  })

  it('the first answer of a lead with a tag that the firm calls hot', async () => {
    const [hot, other] = [await makeLead(firm.ada, { tags: ['Hot'] }), await makeLead(firm.ada, { tags: ['bakery'] })]
    for (const lead of [hot, other]) {
      // both are there before either is looked at
      await comes(lead.e164, 'Gladly')
      await writes(lead.e164, 'Gladly indeed')
    }
    expect(await at(firm.ada, hot)).toMatchObject([{ kind: 'hot-answer', words: 'Gladly', times: 1 }])
    expect(await at(firm.ada, other)).toEqual([])
  })

  it('a call-back at its minute, once, until it is done or put off', async () => {
    const lead = await makeLead(firm.ada)
    const id = uuid()
    const form = { id, kind: 'call-back' as const, title: 'About the trike', day: '2026-11-25', time: '08:30' }
    await addTask(firm.ada, lead.recordId, taskForm.validateSync(form), now())
    const { dueAt } = (await openTasks(firm.ada, { recordId: lead.recordId }))[0]!
    wait(dueAt - now().getTime() - 1_000)
    await knockByTheClock(now())
    expect(await open(firm.ada, lead)).toEqual([])
    for (let i = 0; i < 2; i++) await knockByTheClock(wait(1_000))
    expect(await open(firm.ada, lead)).toMatchObject([
      { kind: 'call-back-due', words: 'About the trike', times: 1, taskId: id, phoneId: lead.phoneId },
    ])
    await changeTask(firm.ada, id, { title: 'About the trike', day: '2026-11-25', time: '08:45', colleagueId: firm.ada.id }, now())
    expect(await open(firm.ada, lead)).toEqual([])
    await knockByTheClock(wait(16 * MINUTE))
    expect(await open(firm.ada, lead)).toMatchObject([{ kind: 'call-back-due' }])
    await setDone(firm.ada, id, true, now())
    expect(await open(firm.ada, lead)).toEqual([])
  })

  it('a conversation that waits too long, at the lead, once for each wait, and only while its line is answered', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Thanks')
    await knockByTheClock(wait(29 * MINUTE))
    expect(await open(firm.odile, lead)).toEqual([])
    const hours = (opens: string, closes: string) => tx(database =>
      database.update(line).set({ hours: { opens, closes, days: [0, 1, 2, 3, 4, 5, 6] } }).where(eq(line.id, firm.portland.id)))
    await hours('00:00', '00:01')
    await knockByTheClock(wait(2 * MINUTE))
    expect(await open(firm.odile, lead)).toEqual([])
    await hours('00:00', '24:00')
    for (let i = 0; i < 2; i++) await knockByTheClock(wait(MINUTE))
    expect(await open(firm.odile, lead)).toMatchObject([{ kind: 'waits-too-long', step: 'lead', assignee: null, times: 1 }])
    expect([await open(firm.ada, lead), await open(firm.rafe, lead)]).toEqual([[], []])
    await settleConversation(firm.odile, await conversationOf(lead.e164), wait(1_000))
    await knockByTheClock(wait(MINUTE))
    expect(await open(firm.odile, lead)).toEqual([])
    await writes(lead.e164, 'Thanks again')
    await knockByTheClock(wait(31 * MINUTE))
    expect(await open(firm.odile, lead)).toMatchObject([{ kind: 'waits-too-long' }])
  })
})

describe('what nobody takes', () => {
  it('goes on to the stand-in and then to the lead, each for the time that the firm has set', async () => {
    await habits(firm.ada, { standInId: firm.mika.id })
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Anybody there?')
    await knockByTheClock(wait(4 * MINUTE))
    expect(await open(firm.mika, lead)).toEqual([])
    await knockByTheClock(wait(MINUTE))
    expect([await open(firm.mika, lead), await open(firm.odile, lead)]).toMatchObject([[{ step: 'stand-in' }], []])
    await knockByTheClock(wait(5 * MINUTE))
    expect(await open(firm.odile, lead)).toMatchObject([{ kind: 'question', step: 'lead' }])
    expect(await open(firm.ada, lead)).toHaveLength(1)
    await knockByTheClock(wait(60 * MINUTE))
    expect(await open(firm.rafe, lead)).toEqual([])
    await habits(firm.ada, {})
    await expect(habits(firm.ada, { standInId: firm.ada.id }))
      .rejects.toMatchObject(problem(422, { fields: { standInId: expect.any(String) } }))
  })

  it('goes to the lead at once where there is no stand-in, or none who may answer', async () => {
    await habits(firm.ada, { standInId: firm.noor.id })
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Anybody there?')
    await knockByTheClock(wait(5 * MINUTE))
    expect([await open(firm.noor, lead), await open(firm.odile, lead)]).toMatchObject([[], [{ step: 'lead' }]])
    await habits(firm.ada, {})
  })

  it('does not knock at those who want to hear of no such things', async () => {
    await habits(firm.ada, { knocksOff: ['question'] })
    await habits(firm.odile, { knocksOff: [...KNOCK_KINDS] })
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Anybody there?')
    expect(await at(firm.ada, lead)).toEqual([])
    await habits(firm.ada, {})
    await writes(lead.e164, 'Hello?')
    for (let i = 0; i < 3; i++) await knockByTheClock(wait(5 * MINUTE))
    expect([await open(firm.ada, lead), await open(firm.odile, lead)]).toMatchObject([[{ step: 'owner' }], []])
    await habits(firm.odile, {})
  })
})

describe('taking it', () => {
  it('gives it to whoever is first, with its conversation, and the others see by whom', async () => {
    await habits(firm.ada, { standInId: firm.mika.id })
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Anybody there?')
    await knockByTheClock(wait(5 * MINUTE))
    const { id } = (await open(firm.ada, lead))[0]!
    const outcomes = await Promise.allSettled([takeKnock(firm.mika, id, now()), takeKnock(firm.ada, id, now())])
    expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const first = outcomes[0].status === 'fulfilled' ? firm.mika : firm.ada
    const second = first === firm.mika ? firm.ada : firm.mika
    await expect(takeKnock(second, id, now())).rejects.toMatchObject(problem(409, { type: 'taken', by: first.firstName }))
    await takeKnock(first, id, now())
    expect(await at(second, lead)).toMatchObject([{ state: 'taken', takenBy: { firstName: first.firstName } }])
    const { owed } = await readInbox(firm.odile, inboxQuery.cast({}))
    expect(owed.find(({ remote }) => remote === lead.e164)!.assignee).toEqual({ id: first.id, firstName: first.firstName })
    expect((await readTimeline(firm.odile, lead.recordId)).entries.filter(({ kind }) => kind === 'assigned')).toHaveLength(1)
    await habits(firm.ada, {})
  })

  it('takes all that knocks about the same, and a call-back with its task', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Can you call me?')
    for (let i = 0; i < 2; i++) await rings(lead.e164)
    expect((await open(firm.ada, lead)).map(({ kind }) => kind).sort()).toEqual(['question', 'second-missed-call'])
    await takeKnock(firm.ada, (await open(firm.ada, lead))[0]!.id, now())
    expect(await open(firm.ada, lead)).toEqual([])

    const promised = await makeLead(firm.mika)
    const [day, time] = later(now(), -10 * 3_600_000).toISOString().split('T') as [string, string]
    const form = taskForm.validateSync({ id: uuid(), kind: 'call-back', title: 'Ring', day, time: time.slice(0, 5) })
    await addTask(firm.mika, promised.recordId, form, now())
    await knockByTheClock(wait(1_000))
    await knockByTheClock(wait(5 * MINUTE))
    await takeKnock(firm.odile, (await open(firm.odile, promised))[0]!.id, now())
    expect(await openTasks(firm.mika, { recordId: promised.recordId })).toMatchObject([{ owner: { firstName: 'Odile' } }])
  })

  it('is refused for what is settled, and for what is with somebody else', async () => {
    const lead = await makeLead(firm.ada)
    await writes(lead.e164, 'Free?')
    const { id } = (await open(firm.ada, lead))[0]!
    for (const who of [firm.noor, firm.odile]) await expect(takeKnock(who, id, now())).rejects.toMatchObject(problem(404))
    await sendText(firm.mika, textTo(lead.phoneId, firm.portland), wait(1_000))
    await expect(takeKnock(firm.ada, id, now())).rejects.toMatchObject(problem(409, { type: 'settled' }))
  })
})
