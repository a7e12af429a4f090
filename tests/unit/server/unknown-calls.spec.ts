import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { callState } from '~~/core/call/facts'
import { dial } from '~~/server/calling/dial'
import { isOnCall } from '~~/server/calling/on-call'
import { orderCall } from '~~/server/calling/orders'
import { factsOf } from '~~/server/calling/stored'
import { tx } from '~~/server/db/door'
import { call } from '~~/server/db/schema'
import { dialForm } from '~~/shared/schemas/calling'
import { useDatabase } from '../../support/database'
import { drain } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
})

const callNow = async (id: string) => (await tx(database => database.select().from(call).where(eq(call.id, id))))[0]!
const stateOf = async (id: string) => callState(factsOf(await callNow(id)))
const begin = async () => {
  const { phoneId } = await makeLead(firm.ada)
  const form = dialForm.validateSync({ id: uuid(), phoneId })
  return form
}

describe('a call of which the answer to its dialling is lost', () => {
  it('is not over: it is looked for by our own name, found, and ended like any other', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    exchange.answerNext({ kind: 'not-known' })
    exchange.became({ kind: 'dialling', ref: 'theirs' })
    await dial(firm.ada, form, DAY)
    expect([await stateOf(form.id), await isOnCall(firm.ada.id)]).toEqual(['dialling', true])
    await drain(later(DAY, 8_000))
    expect([exchange.askedAfter, (await callNow(form.id)).exchangeRef]).toEqual([[form.id], 'theirs'])
    await orderCall(firm.ada, form.id, 'hang-up', later(DAY, 9_000))
    expect(exchange.ordered).toEqual([{ ref: 'theirs', order: 'hang-up' }])
    await exchange.tellOf('theirs', { kind: 'ended', at: later(DAY, 10_000).getTime(), why: 'hung-up', side: 'us' })
    expect([await stateOf(form.id), await isOnCall(firm.ada.id)]).toEqual(['ended', false])
  })

  it('has its exchange\'s name from the first that is told of it, so that it can be ended at once', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    exchange.answerNext({ kind: 'not-known' })
    await dial(firm.ada, form, DAY)
    await exchange.tell(form.id, { kind: 'ringing', at: later(DAY, 1_000).getTime() })
    await orderCall(firm.ada, form.id, 'hang-up', later(DAY, 2_000))
    expect([exchange.askedAfter, exchange.ordered]).toEqual([[], [{ ref: `call-${form.id}`, order: 'hang-up' }]])
    await exchange.tell(form.id, { kind: 'ended', at: later(DAY, 3_000).getTime(), why: 'hung-up', side: 'us' })
  })

  it('is refused an order in words while nobody can say, and stays as it is', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    exchange.answerNext({ kind: 'not-known' })
    exchange.became({ kind: 'unreachable' })
    await dial(firm.ada, form, DAY)
    await expect(orderCall(firm.ada, form.id, 'hang-up', DAY)).rejects.toMatchObject({
      details: { status: 409, type: 'not-known-yet', detail: expect.stringContaining('nobody knows yet whether it rings') },
    })
    await drain(later(DAY, 8_000))
    expect(await stateOf(form.id)).toBe('dialling')
    // once the exchange answers again it is found without anybody asking
    exchange.became({ kind: 'never' })
    await drain(later(DAY, 20_000))
    expect([await stateOf(form.id), await isOnCall(firm.ada.id)]).toEqual(['ended', false])
  })

  it('that was never made is over, and never will be', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    exchange.answerNext({ kind: 'not-known' })
    exchange.became({ kind: 'never' })
    await dial(firm.ada, form, DAY)
    await orderCall(firm.ada, form.id, 'hang-up', later(DAY, 500))
    expect([exchange.ordered, await stateOf(form.id)]).toEqual([[], 'ended'])
  })

  it('is found after a crash in the middle of dialling, by nothing but what was committed', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    // the process dies while it asks: nothing after the commit has happened
    exchange.answerNext({ kind: 'not-known' })
    await dial(firm.ada, form, DAY)
    exchange.became({ kind: 'dialling', ref: 'after all' })
    await drain(later(DAY, 60_000))
    expect((await callNow(form.id)).exchangeRef).toBe('after all')
    await exchange.tellOf('after all', { kind: 'ended', at: later(DAY, 70_000).getTime(), why: 'busy', side: 'them' })
  })

  it('is surely not made where nobody answered at all', async () => {
    const exchange = fakeExchange()
    const form = await begin()
    exchange.answerNext({ kind: 'unreachable' })
    await dial(firm.ada, form, DAY)
    expect([await stateOf(form.id), exchange.askedAfter]).toEqual(['ended', []])
  })
})
