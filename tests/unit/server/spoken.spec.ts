import { v7 as uuid } from 'uuid'
import { callState, leftMessage } from '~~/core/call/facts'
import { madeUpSound } from '~~/practice/exchange/sound'
import { dial } from '~~/server/calling/dial'
import { dispose } from '~~/server/calling/dispose'
import { transferCall } from '~~/server/calling/transfers/transfer'
import { leaveSpoken } from '~~/server/calling/leave'
import { myCalls } from '~~/server/calling/mine'
import { hearSpoken, listSpoken, retireSpoken, saveSpoken } from '~~/server/calling/spoken'
import { tx } from '~~/server/db/door'
import { call, disposition } from '~~/server/db/schema'
import { readTimeline } from '~~/server/timeline/read'
import { dialForm, disposeForm, transferForm, spokenForm } from '~~/shared/schemas/calling'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
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
const HELLO = madeUpSound('hello', 3_000, 1)
const form = (values: object = {}) =>
  spokenForm.validateSync({ name: 'Short hello', words: 'Hello, this is Ada.', sound: HELLO.toString('base64'), ...values })
async function spoken(values: object = {}, who = firm.ada) {
  const id = uuid()
  await saveSpoken(who, id, form(values), DAY)
  return id
}
const names = async (who: Firm['ada']) => (await listSpoken(who)).map(({ name }) => name)

async function mailboxAnswers() {
  const lead = await makeLead(firm.ada)
  const dialled = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
  await dial(firm.ada, dialled, DAY)
  await exchange.tell(dialled.id, { kind: 'answered', at: DAY.getTime() + 1_000, by: 'machine' })
  return { ...lead, callId: dialled.id }
}
const detail = async (id: string) => (await myCalls(firm.ada, later(DAY, 20_000))).find(one => one.id === id)!

describe('a spoken message', () => {
  it('is kept with its shape, for whoever spoke it or a team, and heard by who may leave it', async () => {
    const own = await spoken({ name: 'Only mine' })
    const shared = await spoken({ name: 'For sales', teamId: firm.ada.teamIds[0] })
    const [first] = await listSpoken(firm.ada)
    expect(first).toMatchObject({
      name: 'For sales',
      ms: 3_000,
      team: { name: 'Sales' },
      owner: { firstName: firm.ada.firstName },
      mayEdit: true,
    })
    expect(Math.max(...first!.peaks)).toBeGreaterThan(0.1)
    expect([await names(firm.ada), await names(firm.mika), await names(firm.noor), await names(firm.odile)]).toEqual([
      ['For sales', 'Only mine'],
      ['For sales'],
      [],
      ['For sales', 'Only mine'],
    ])
    expect(await hearSpoken(firm.mika, shared)).toEqual(HELLO)
    await expect(hearSpoken(firm.mika, own)).rejects.toMatchObject(problem(404))
  })

  it('is changed by who spoke it or leads them, keeps its sound where none is sent, and goes away', async () => {
    const id = await spoken({ teamId: firm.ada.teamIds[0] })
    await expect(saveSpoken(firm.mika, id, form({ name: 'Stolen' }), DAY)).rejects.toMatchObject(problem(403))
    await saveSpoken(firm.odile, id, form({ name: 'Better', sound: null, teamId: firm.ada.teamIds[0] }), DAY)
    expect(await hearSpoken(firm.ada, id)).toEqual(HELLO)
    await expect(retireSpoken(firm.mika, id, DAY)).rejects.toMatchObject(problem(403))
    await retireSpoken(firm.ada, id, DAY)
    expect(await names(firm.ada)).not.toContain('Better')
    await expect(hearSpoken(firm.ada, id)).rejects.toMatchObject(problem(404))
  })

  it.each([
    ['nothing spoken', { sound: null }, 'sound'],
    ['no sound', { sound: Buffer.from('words').toString('base64') }, 'sound'],
    ['a click', { sound: madeUpSound('click', 100, 1).toString('base64') }, 'sound'],
    ['a speech', { sound: madeUpSound('speech', 121_000, 1).toString('base64') }, 'sound'],
    ['a foreign team', { teamId: '0198b9a0-0000-7000-8000-000000000000' }, 'teamId'],
  ])('is refused with what is wrong: %s', async (_, values, field) => {
    await expect(spoken(values)).rejects.toMatchObject(problem(422, { fields: { [field]: expect.any(String) } }))
  })
})

describe('leaving it on a mailbox', () => {
  it('lets me go at once: I say how it went and call the next, while it is still being said', async () => {
    const id = await spoken()
    const { callId, recordId } = await mailboxAnswers()
    await leaveSpoken(firm.ada, callId, id)
    expect(exchange.sent).toEqual([{ ref: `call-${callId}`, sound: HELLO }])
    expect([callState((await detail(callId)).facts), (await detail(callId)).spoken]).toEqual(['leaving', 'Short hello'])
    const dispositionId = uuid()
    await tx(database =>
      database
        .insert(disposition)
        .values({
          id: dispositionId,
          module: 'lead',
          name: 'Message left',
          family: 'not-reached',
          letter: 'm',
          position: 0,
          effects: [{ kind: 'add-tag', tag: 'rang' }],
        }),
    )
    expect(await dispose(firm.ada, callId, disposeForm.validateSync({ dispositionId }), DAY)).toMatchObject({
      effects: [{ state: 'done' }],
    })
    const next = await mailboxAnswers()
    expect(callState((await detail(next.callId)).facts)).toBe('talking')
    const now = Date.now()
    await exchange.tell(callId, { kind: 'left', at: now + 3_000 })
    await exchange.tell(callId, { kind: 'ended', at: now + 3_001, why: 'hung-up', side: 'us' })
    // what was left stays as it was, whatever the message says later
    await saveSpoken(firm.ada, id, form({ words: 'Other words by now.', sound: null }), DAY)
    const { call: shown } = (await readTimeline(firm.mika, recordId)).entries.find(({ call }) => call?.id === callId)!
    expect([leftMessage(shown!.facts), shown!.spoken]).toEqual(['left', { name: 'Short hello', words: 'Hello, this is Ada.' }])
  })

  it('says why it cannot be, and leaves the call as it is', async () => {
    const id = await spoken()
    const { callId } = await mailboxAnswers()
    await expect(leaveSpoken(firm.mika, callId, id)).rejects.toMatchObject(problem(404))
    await expect(leaveSpoken(firm.ada, callId, uuid())).rejects.toMatchObject(problem(404))
    for (const [answer, type] of [['not-now', 'not-now'], ['unreachable', 'exchange-away']] as const) {
      exchange.refuseNextOrder(answer)
      await expect(leaveSpoken(firm.ada, callId, id)).rejects.toMatchObject(problem(409, { type }))
      expect([callState((await detail(callId)).facts), (await detail(callId)).spoken]).toEqual(['talking', null])
    }
    await transferCall(firm.ada, callId, transferForm.validateSync({ id: uuid(), toId: firm.mika.id, way: 'blind' }), DAY)
    await expect(leaveSpoken(firm.ada, callId, id)).rejects.toMatchObject(problem(409))
    const ringing = await (async () => {
      await tx(database => database.update(call).set({ endedAt: DAY }))
      const lead = await makeLead(firm.ada)
      const dialled = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
      await dial(firm.ada, dialled, DAY)
      return dialled.id
    })()
    await expect(leaveSpoken(firm.ada, ringing, id)).rejects.toMatchObject(problem(409, { type: 'not-now' }))
    exchange.refuseNextOrder('gone')
    await exchange.tell(ringing, { kind: 'answered', at: DAY.getTime(), by: 'machine' })
    await leaveSpoken(firm.ada, ringing, id)
    expect((await detail(ringing)).facts.end).toMatchObject({ why: 'network' })
  })
})
