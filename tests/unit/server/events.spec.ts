import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterEvent, type MessageState } from '~~/core'
import { SILENCE_AFTER, type CarrierReport } from '~~/core/message/states'
import { tx } from '~~/server/db/door'
import { carrierEvent, message } from '~~/server/db/schema'
import { callSilence, takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let lead: Awaited<ReturnType<typeof makeLead>>
beforeAll(async () => {
  firm = await makeFirm()
  lead = await makeLead(firm.ada)
})

const LEFT = later(DAY, TAKE_BACK_MS)
const report = (kind: CarrierReport, ref: string, key: string | null) => ({
  id: `${kind} ${ref}`,
  at: LEFT,
  kind,
  ref,
  key,
  code: kind === 'undelivered' ? 'recipient-unreachable' : null,
})
const stateOf = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!.state

async function sent(): Promise<string> {
  fakeCarrier()
  const form = textTo(lead.phoneId, firm.portland)
  await sendText(firm.ada, form, DAY)
  await drain(LEFT)
  return form.id
}

describe('reports of a carrier', () => {
  it('come out as the state machine says, in any order, twice, or with some missing', async () => {
    const reports = fc.shuffledSubarray<CarrierReport>(['sent', 'undelivered', 'delivered', 'sent', 'delivered'])
    await fc.assert(fc.asyncProperty(reports, fc.boolean(), async (kinds, withKey) => {
      const id = await sent()
      for (const kind of kinds) await takeEvent('practice', report(kind, `ref-${id}`, withKey ? id : null), LEFT)
      const expected = [...new Set(kinds)].reduce<MessageState>((state, kind) => afterEvent(state, kind)!, 'accepted')
      expect(await stateOf(id)).toBe(expected)
    }), { numRuns: 25 })
  })

  it('that overtake the carrier\'s own answer are taken', async () => {
    const carrier = fakeCarrier()
    const form = textTo(lead.phoneId, firm.portland)
    await sendText(firm.ada, form, DAY)
    carrier.next(async () => {
      await takeEvent('practice', report('delivered', `ref-${form.id}`, form.id), LEFT)
      return { kind: 'accepted', ref: `ref-${form.id}`, charge: { parts: 1, costMicros: 8_000, currency: 'USD' } }
    })
    await drain(LEFT)
    expect(await stateOf(form.id)).toBe('delivered')
  })

  it('that overtake an answer which is then lost still lead to what the text cost', async () => {
    const carrier = fakeCarrier()
    const form = textTo(lead.phoneId, firm.portland)
    await sendText(firm.ada, form, DAY)
    carrier.next(async () => {
      await takeEvent('practice', report('delivered', `ref-${form.id}`, form.id), LEFT)
      return { kind: 'try-later', afterMs: 1_000, certain: false, code: 'answer-lost' }
    })
    await drain(later(LEFT, 2_000))
    const [stored] = await tx(database => database.select().from(message).where(eq(message.id, form.id)))
    expect([carrier.asked.map(text => text.key), stored!.state, stored!.costMicros]).toEqual([[form.id], 'delivered', null])
    await drain(later(LEFT, 5_000))
    const [told] = await tx(database => database.select().from(message).where(eq(message.id, form.id)))
    expect([carrier.asked.length, told!.state, told!.costMicros]).toEqual([2, 'delivered', 8_000])
  })

  it('about a text that we do not know yet are kept, and applied when we do', async () => {
    const carrier = fakeCarrier()
    const form = textTo(lead.phoneId, firm.portland)
    await sendText(firm.ada, form, DAY)
    await takeEvent('practice', report('delivered', `ref-${form.id}`, null), DAY)
    expect(await stateOf(form.id)).toBe('waiting')
    await drain(LEFT)
    expect([carrier.asked.length, await stateOf(form.id)]).toEqual([1, 'delivered'])
    const [kept] = await tx(database => database.select().from(carrierEvent).where(eq(carrierEvent.carrierRef, `ref-${form.id}`)))
    expect(kept!.messageId).toBe(form.id)
  })

  it('lift a text of which it was not known whether it left', async () => {
    const id = await sent()
    await tx(database => database.update(message).set({ state: 'not-known', carrierRef: null }).where(eq(message.id, id)))
    await takeEvent('practice', report('delivered', uuid(), id), LEFT)
    expect(await stateOf(id)).toBe('delivered')
  })

  it('that never come make a text unreported after 72 hours, until one comes', async () => {
    const id = await sent()
    await callSilence(later(LEFT, SILENCE_AFTER - 1))
    expect(await stateOf(id)).toBe('accepted')
    await callSilence(later(LEFT, SILENCE_AFTER + 1))
    expect(await stateOf(id)).toBe('unreported')
    await takeEvent('practice', report('delivered', `ref-${id}`, id), later(LEFT, SILENCE_AFTER + 2))
    expect(await stateOf(id)).toBe('delivered')
  })
})
