import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { consentAt } from '~~/core'
import { tx } from '~~/server/db/door'
import { consentEntry, consentProposal, numberState } from '~~/server/db/schema'
import { decideConsent, dismissProposal } from '~~/server/consent/decide'
import { addRecord } from '~~/server/records/save'
import { readRecord } from '~~/server/pages/record'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { readConversation, readShelf } from '~~/server/pages/shelf'
import { settleConversation } from '~~/server/texting/owed'
import { takeBack } from '~~/server/texting/take-back'
import { readTimeline } from '~~/server/timeline/read'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, form, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())

const receive = (from: string, text: string, at = DAY, to = firm.portland.e164) =>
  takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to, text }, at)
const consentOf = async (recordId: string) => (await readRecord(firm.ada, recordId, DAY)).phones[0]!.consent
const waiting = async (who = firm.ada) => (await readShelf(who)).items

describe('a text that comes in', () => {
  it('lands on the timeline, waits on the shelf of those who answer the line, and counts as contact', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'Is the bike still free?', later(DAY, 1_000))
    const { entries } = await readTimeline(firm.ada, recordId)
    expect(entries[0]).toMatchObject({ kind: 'text-in', words: 'Is the bike still free?', message: { direction: 'in', state: 'received' } })
    expect(await waiting(firm.mika)).toContainEqual(
      expect.objectContaining({
        remote: e164,
        record: expect.objectContaining({ name: 'Iris Holm' }),
        waitsSince: later(DAY, 1_000).getTime(),
      }),
    )
    expect(await waiting(firm.noor)).toEqual([])
    expect((await readRecord(firm.ada, recordId, DAY)).lastContactAt).toBe(later(DAY, 1_000).getTime())
  })

  it('is stored once, however often it is told', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    const event = { id: uuid(), at: DAY, kind: 'received' as const, ref: uuid(), from: e164, to: firm.portland.e164, text: 'once' }
    await takeEvent('practice', event, DAY)
    await takeEvent('practice', event, DAY)
    expect((await readTimeline(firm.ada, recordId)).entries.filter(entry => entry.words === 'once')).toHaveLength(1)
  })

  it('shows on every record that holds the number, and on their company', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    const companyId = await addRecord(firm.ada, { ...form({ name: 'Holm & Daughters Bakery' }), id: uuid(), module: 'company' }, DAY)
    const second = await makeLead(firm.mika, { firstName: 'Shared', companyId }, e164)
    await receive(e164, 'from the shared phone')
    for (const id of [recordId, second.recordId, companyId]) {
      expect((await readTimeline(firm.ada, id)).entries.map(entry => entry.words)).toContain('from the shared phone')
    }
    expect((await readTimeline(firm.ada, companyId)).entries[0]).toMatchObject({ via: { name: 'Shared Holm' } })
    expect((await waiting()).find(item => item.remote === e164)).toMatchObject({ holders: 2 })
  })

  it('from a number on no record can be answered, and comes onto the record that is made of it', async () => {
    const stranger = '+18085550177'
    await receive(stranger, 'Saw your trike outside the library')
    const item = (await waiting()).find(one => one.remote === stranger)!
    expect(item.record).toBeNull()
    await sendText(
      firm.ada,
      { ...textTo('', firm.portland), phoneId: null, conversationId: item.conversationId, text: 'That is us!' },
      later(DAY, 1_000),
    )
    await drain(later(DAY, 10_000))
    expect(carrier.asked[0]).toMatchObject({ to: stranger })
    const { recordId } = await makeLead(firm.ada, { firstName: 'Kalani' }, '808 555 0177')
    const said = (await readTimeline(firm.ada, recordId)).entries.flatMap(entry => entry.message ? [entry.words] : [])
    expect(said).toEqual(['That is us!', 'Saw your trike outside the library'])
  })

  it('waits no more once it is answered, again if the answer is taken back, and not if it needs none', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'Well?', later(DAY, -60_000))
    const isWaiting = async () => (await waiting()).some(item => item.remote === e164)
    const text = textTo(phoneId, firm.portland)
    await sendText(firm.ada, text, DAY)
    expect(await isWaiting()).toBe(false)
    await takeBack(firm.ada, text.id, later(DAY, 1_000))
    expect((await waiting()).find(item => item.remote === e164)).toMatchObject({ waitsSince: later(DAY, -60_000).getTime() })
    const { conversationId } = (await waiting()).find(item => item.remote === e164)!
    await expect(settleConversation(firm.noor, conversationId, DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await settleConversation(firm.mika, conversationId, later(DAY, 5_000))
    expect(await isWaiting()).toBe(false)
    expect((await readConversation(firm.mika, conversationId, DAY)).entries.map(({ kind }) => kind)).toEqual(['nothing-needed', 'text-out', 'text-in'])
  })
})

describe('STOP, START and HELP', () => {
  it('STOP opts the number out for every line, is confirmed once, and waits for nobody', async () => {
    const { recordId, phoneId, e164 } = await makeLead(firm.ada)
    await receive(e164, ' stop. ', DAY, firm.second.e164)
    await receive(e164, 'STOP', later(DAY, 1_000))
    await drain(later(DAY, 10_000))
    expect(carrier.asked).toEqual([
      expect.objectContaining({ to: e164, from: firm.second.e164, confirmsOptOut: true, text: expect.stringContaining('no more texts') }),
    ])
    expect(await consentOf(recordId)).toMatchObject({ texts: 'refused', how: 'text', words: 'STOP', line: 'Portland line' })
    expect((await waiting()).some(item => item.remote === e164)).toBe(false)
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), DAY)).rejects.toMatchObject({ details: { type: 'opted-out' } })
    const { entries } = await readTimeline(firm.ada, recordId)
    expect(entries).toContainEqual(
      expect.objectContaining({ kind: 'consent-changed', words: null, data: expect.objectContaining({ kind: 'refused' }) }),
    )
  })

  it('START takes it back, and only after a STOP is it an order', async () => {
    const { recordId, phoneId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'Yes')
    expect((await waiting()).some(item => item.remote === e164)).toBe(true)
    expect((await consentOf(recordId)).texts).toBe('unknown')
    await receive(e164, 'STOP', later(DAY, 1_000))
    await receive(e164, 'Start', later(DAY, 2_000))
    await drain(later(DAY, 10_000))
    expect(carrier.asked.map(text => text.text)).toEqual([expect.stringContaining('no more texts'), expect.stringContaining('on again')])
    expect((await consentOf(recordId)).texts).toBe('agreed')
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), DAY)).resolves.toMatchObject({ id: expect.any(String) })
  })

  it('HELP is answered by Plauder itself', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'HELP')
    await drain(later(DAY, 1_000))
    expect(carrier.asked).toEqual([expect.objectContaining({ text: expect.stringContaining('Pannier & Post') })])
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({
      kind: 'text-out',
      colleague: null,
      message: { origin: 'automatic' },
    })
  })

  it('HELP from somebody who has stopped sends nothing and waits for a person', async () => {
    const { e164 } = await makeLead(firm.ada)
    await receive(e164, 'STOP')
    await receive(e164, 'help', later(DAY, 1_000))
    await drain(later(DAY, 10_000))
    expect(carrier.asked.filter(text => text.to === e164)).toHaveLength(1)
    expect((await waiting()).some(item => item.remote === e164)).toBe(true)
  })
})

describe('a wish in free words', () => {
  const proposalFor = async (e164: string) =>
    (await tx(database => database.select().from(consentProposal).where(eq(consentProposal.e164, e164))))[0]!

  it('is proposed, not taken; one yes opts the number out with the words of the text', async () => {
    const { recordId, phoneId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'please don’t text me again')
    expect((await consentOf(recordId)).texts).toBe('unknown')
    const proposal = await proposalFor(e164)
    await decideConsent(firm.ada, phoneId, { agrees: false, covers: 'texts', words: '', proposalId: proposal.id }, DAY)
    expect(await consentOf(recordId)).toMatchObject({ texts: 'refused', how: 'by-hand', words: 'please don’t text me again' })
    await expect(decideConsent(firm.mika, phoneId, { agrees: false, covers: 'texts', words: '', proposalId: proposal.id }, DAY)).rejects.toMatchObject({
      details: { type: 'decided' },
    })
  })

  it('of another number is not found', async () => {
    const [own, other] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    await receive(other.e164, 'please don’t text me again')
    const proposal = await proposalFor(other.e164)
    await expect(
      decideConsent(firm.ada, own.phoneId, { agrees: false, covers: 'texts', words: 'said so', proposalId: proposal.id }, DAY),
    ).rejects.toMatchObject({ details: { status: 404 } })
    expect((await proposalFor(other.e164)).decidedAt).toBeNull()
  })

  it('can be said to be none, by those who may change the record', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    await receive(e164, 'stop sending me the blue ones, I like red')
    const proposal = await proposalFor(e164)
    await expect(dismissProposal(firm.noor, proposal.id, DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await dismissProposal(firm.ada, proposal.id, DAY)
    expect((await consentOf(recordId)).texts).toBe('unknown')
  })

  it('and a colleague cannot take back what the person has stopped', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    await decideConsent(firm.ada, phoneId, { agrees: true, covers: 'texts', words: 'said so on the phone', proposalId: null }, DAY)
    await receive(e164, 'STOP')
    await expect(
      decideConsent(firm.ada, phoneId, { agrees: true, covers: 'texts', words: 'changed their mind', proposalId: null }, DAY),
    ).rejects.toMatchObject({ details: { type: 'opted-out' } })
  })
})

describe('the ledger', () => {
  it('computes to the state that is kept for queries, for every number', async () => {
    const numbers = await tx(database => database.select().from(numberState))
    expect(numbers.length).toBeGreaterThan(5)
    for (const { e164, texts, calls } of numbers) {
      const entries = await tx(database => database.select().from(consentEntry).where(eq(consentEntry.e164, e164)))
      const computed = consentAt(entries.map(entry => ({ ...entry, at: entry.at.getTime() })), later(DAY, 86_400_000).getTime())
      expect([e164, computed.texts, computed.calls]).toEqual([e164, texts, calls])
    }
  })

  it('cannot be rewritten', async () => {
    await expect(tx(database => database.execute(sql`update consent_entry set kind = 'agreed'`))).rejects.toThrow()
  })
})
