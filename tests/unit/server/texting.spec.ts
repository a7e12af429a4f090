import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { message, line, textMessage } from '~~/server/db/schema'
import { takeDue, takeLeasesBack } from '~~/server/jobs/outbox'
import { HAND_OVER } from '~~/server/jobs/kinds'
import { newRef } from '~~/core/message/ref'
import { dismissProposal } from '~~/server/consent/decide'
import { writeConsent } from '~~/server/consent/ledger'
import { takeEvent } from '~~/server/texting/events'
import { handOver } from '~~/server/texting/hand-over'
import { receiveText } from '~~/server/texting/receive'
import { sendText } from '~~/server/texting/send'
import { letGo, takeBack } from '~~/server/texting/take-back'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { readTimeline } from '~~/server/timeline/read'
import { readRecord } from '~~/server/pages/record'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, NIGHT, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
const LEFT = later(DAY, TAKE_BACK_MS)
beforeAll(async () => firm = await makeFirm())

const stored = async (id: string) => {
  const [{ message: any, text_message: text }] = (await tx(database =>
    database.select().from(message).innerJoin(textMessage, eq(textMessage.messageId, message.id)).where(eq(message.id, id)),
  )) as [{ message: typeof message.$inferSelect, text_message: typeof textMessage.$inferSelect }]
  return { ...any, ...text }
}
const stateOf = async (id: string) => (({ state, code }) => code ? `${state} ${code}` : state)(await stored(id))

/** A lead and a text to it, queued. */
async function queued(values: object = {}, at = DAY) {
  const lead = await makeLead(firm.ada)
  const form = textTo(lead.phoneId, firm.portland, values)
  await sendText(firm.ada, form, at)
  return { ...lead, id: form.id, form }
}

describe('sending a text', () => {
  it('writes message, entry and job at once, and hands over when the time to take it back is gone', async () => {
    const carrier = fakeCarrier()
    const { id, recordId, e164 } = await queued()
    await drain(later(DAY, TAKE_BACK_MS - 1))
    expect(carrier.asked).toEqual([])
    await drain(LEFT)
    expect(carrier.asked).toEqual([
      { key: id, from: '+15035550118', to: e164, text: 'Hi Iris, Ada here.', shift: null, pictures: [], confirmsOptOut: false },
    ])
    expect(await stored(id)).toMatchObject({ state: 'accepted', carrierRef: `ref-${id}`, costMicros: 8_000, parts: 1 })
    const { entries } = await readTimeline(firm.mika, recordId)
    expect(entries[0]).toMatchObject({
      kind: 'text-out',
      words: 'Hi Iris, Ada here.',
      colleague: { firstName: 'Ada' },
      message: { state: 'accepted', line: { name: 'Portland line' } },
    })
    expect((await readRecord(firm.ada, recordId, DAY)).lastContactAt).toBe(LEFT.getTime())
  })

  it('gives the first result when it is sent again', async () => {
    const carrier = fakeCarrier()
    const { id, form } = await queued()
    expect(await sendText(firm.ada, form, later(DAY, 3_000))).toMatchObject({ id, leavesAt: LEFT.getTime() })
    await expect(sendText(firm.mika, form, DAY)).rejects.toMatchObject({ details: { status: 409 } })
    await drain(LEFT)
    expect(carrier.asked).toHaveLength(1)
  })

  it('keeps the order of texts to one person, also when the first has to wait', async () => {
    const carrier = fakeCarrier()
    const { form } = await queued({ text: 'first' })
    await sendText(firm.ada, { ...form, id: uuid(), text: 'second' }, later(DAY, 10))
    carrier.next({ kind: 'try-later', afterMs: 2_000, certain: true, code: 'carrier-unreachable' })
    await drain(later(LEFT, 100))
    expect(carrier.asked.map(text => text.text)).toEqual(['first'])
    await drain(later(LEFT, 2_200))
    expect(carrier.asked.map(text => text.text)).toEqual(['first', 'first', 'second'])
  })

  it.each([
    ['an empty text', { text: '   ' }, /Write the text first/],
    ['a field still open', { text: 'Hi {{ person.first_name }}' }, /still open/],
    ['too many parts', { text: 'a'.repeat(1_600) }, /11 parts; the carrier takes 10/],
  ])('refuses %s at the field', async (_what, values, words) => {
    const lead = await makeLead(firm.ada)
    await expect(sendText(firm.ada, { ...textTo(lead.phoneId, firm.portland), ...values }, DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { text: expect.stringMatching(words) } },
    })
  })

  it('refuses a line of another country, of another team, or that is closed', async () => {
    const lead = await makeLead(firm.ada)
    await expect(sendText(firm.odile, textTo(lead.phoneId, firm.halifax), DAY)).rejects.toMatchObject({
      details: { fields: { lineId: expect.stringContaining('within CA only') } },
    })
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.halifax), DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(sendText(firm.mika, textTo(lead.phoneId, firm.own), DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await tx(database => database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.second.id)))
    await expect(sendText(firm.ada, textTo(lead.phoneId, firm.second), DAY)).rejects.toMatchObject({
      details: { fields: { lineId: expect.stringContaining('not in use') } },
    })
    await tx(database => database.update(line).set({ state: 'active' }).where(eq(line.id, firm.second.id)))
  })

  it('never texts a number that cannot be valid, nor a record of another team', async () => {
    const { recordId } = await makeLead(firm.ada, { phones: [{ label: 'shop', typed: '503 555 01' }] })
    const { phones } = await readRecord(firm.ada, recordId, DAY)
    expect(phones[0]).toMatchObject({ typed: '503 555 01', e164: null, unusable: 'too-short' })
    await expect(sendText(firm.ada, textTo(phones[0]!.id, firm.portland), DAY)).rejects.toMatchObject({
      details: { fields: { phoneId: expect.stringContaining('cannot be used') } },
    })
    const lead = await makeLead(firm.ada)
    await expect(sendText(firm.noor, textTo(lead.phoneId, firm.halifax), DAY)).rejects.toMatchObject({ details: { status: 404 } })
  })
})

describe('what is asked before a text leaves', () => {
  it('is whether the same words are to go to the same person again within minutes', async () => {
    fakeCarrier()
    const { phoneId } = await queued()
    const again = (values: object, at: number) =>
      sendText(firm.ada, textTo(phoneId, firm.second, { anyway: [], ...values }), later(DAY, at))
    await expect(again({}, 60_000)).rejects.toMatchObject({
      details: { status: 409, type: 'twice', detail: 'You have sent the very same text to this number 1 min ago.' },
    })
    await again({ text: 'Hi Iris, Ada once more.' }, 61_000)
    await again({ anyway: ['twice'] }, 62_000)
    await again({}, 62_000 + 10 * 60_000 + 1)
    // a colleague who writes the same is told of it elsewhere
    await sendText(firm.mika, textTo(phoneId, firm.portland, { anyway: [] }), later(DAY, 63_000))
    // what was taken back has not been said
    const other = await queued()
    await takeBack(firm.ada, other.id, DAY)
    await sendText(firm.ada, { ...other.form, id: uuid(), anyway: [] }, later(DAY, 1_000))
    await drain(later(DAY, 3_600_000))
  })

  it('is nothing where a page sends the draft once more of which it has not heard that it left', async () => {
    fakeCarrier()
    const { phoneId } = await makeLead(firm.ada)
    const ref = newRef(() => 12_345)
    const first = await sendText(firm.ada, textTo(phoneId, firm.portland, { ref }), DAY)
    expect(await sendText(firm.ada, textTo(phoneId, firm.portland, { ref, anyway: [] }), later(DAY, 60_000))).toEqual(first)
    await drain(later(DAY, 3_600_000))
  })

  it('is whether what came from there was a wish to be left alone, until somebody has decided on it', async () => {
    fakeCarrier()
    const { phoneId, e164, recordId } = await makeLead(firm.ada)
    await receiveText(
      'practice',
      { id: uuid(), kind: 'received', ref: uuid(), at: DAY, from: e164, to: firm.portland.e164, text: 'no thanks, please stop texting me' },
      DAY,
    )
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), DAY)).rejects.toMatchObject({ details: { status: 409, type: 'wish' } })
    await sendText(firm.ada, textTo(phoneId, firm.portland, { anyway: ['wish'] }), DAY)
    const { entries } = await readTimeline(firm.ada, recordId)
    const { proposal } = entries.find(({ kind }) => kind === 'text-in')!.message!
    await dismissProposal(firm.ada, proposal!.id, DAY)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'Thank you, Iris.' }), DAY)
    await drain(later(DAY, 3_600_000))
  })
})

describe('taking a text back', () => {
  it('gives the words back while it waits, and it never leaves', async () => {
    const carrier = fakeCarrier()
    const { id } = await queued({ text: 'Oh no' })
    expect(await takeBack(firm.ada, id, later(DAY, 1_000))).toEqual({
      text: 'Oh no',
      pictureIds: [],
      templateId: null,
      templateVersion: null,
      ref: (await stored(id)).ref,
      later: null,
    })
    await drain(later(DAY, 60_000))
    expect([carrier.asked, await stateOf(id)]).toEqual([[], 'taken-back'])
  })

  it('comes too late once it is handed over, and is for its author only', async () => {
    fakeCarrier()
    const { id } = await queued()
    await expect(takeBack(firm.mika, id, DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await drain(LEFT)
    await expect(takeBack(firm.ada, id, LEFT)).rejects.toMatchObject({ details: { type: 'has-left' } })
  })

  it('or the hand-over wins, never both', async () => {
    for (let round = 0; round < 10; round++) {
      const carrier = fakeCarrier()
      const { id } = await queued()
      const [back] = await Promise.allSettled([takeBack(firm.ada, id, LEFT), drain(LEFT)])
      expect(carrier.asked).toHaveLength(back.status === 'fulfilled' ? 0 : 1)
    }
  })
})

describe('an opt-out', () => {
  const stop = (e164: string, at: Date) => writeConsent({ e164, at, kind: 'refused', covers: 'texts', how: 'text', words: 'STOP' })

  it('is not got past by a new text, from any line', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    await stop(e164, DAY)
    for (const from of [firm.portland, firm.second])
      await expect(sendText(firm.ada, textTo(phoneId, from, { nightAllowed: true }), DAY)).rejects.toMatchObject({
        details: { type: 'opted-out' },
      })
  })

  it('holds a text that was queued before it came in', async () => {
    const carrier = fakeCarrier()
    const { id, e164 } = await queued({ nightAllowed: true })
    await stop(e164, later(DAY, 1_000))
    await drain(LEFT)
    expect([carrier.asked, await stateOf(id)]).toEqual([[], 'held opted-out'])
  })

  it('holds a text that the carrier has surely not taken at the first try', async () => {
    const carrier = fakeCarrier()
    const { id, e164 } = await queued()
    carrier.next({ kind: 'try-later', afterMs: 1_000, certain: true, code: 'carrier-unreachable' })
    await drain(LEFT)
    await stop(e164, later(LEFT, 500))
    await drain(later(LEFT, 5_000))
    expect([carrier.asked.length, await stateOf(id)]).toEqual([1, 'held opted-out'])
  })

  it('leaves a text whose answer was lost to a person', async () => {
    const carrier = fakeCarrier()
    const { id, e164 } = await queued()
    carrier.next({ kind: 'try-later', afterMs: 1_000, certain: false, code: 'answer-lost' })
    await drain(LEFT)
    await stop(e164, later(LEFT, 500))
    await drain(later(LEFT, 5_000))
    expect([carrier.asked.length, await stateOf(id)]).toEqual([1, 'not-known answer-lost'])
  })
})

describe('the night', () => {
  it('asks first, saying what time it is there', async () => {
    const { phoneId } = await makeLead(firm.ada)
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), NIGHT)).rejects.toMatchObject({
      details: {
        type: 'night',
        reason: 'night',
        notBefore: Date.parse('2026-11-25T18:00:00Z'),
        zones: [{ name: 'Pacific/Honolulu', offsets: [-600] }],
      },
    })
    const carrier = fakeCarrier()
    await sendText(firm.ada, textTo(phoneId, firm.portland, { nightAllowed: true }), NIGHT)
    await drain(later(NIGHT, TAKE_BACK_MS))
    expect(carrier.asked).toHaveLength(1)
  })

  it('is no reason to ask where somebody wrote within the hour', async () => {
    const { phoneId, e164 } = await makeLead(firm.ada)
    await takeEvent(
      'practice',
      {
        id: uuid(),
        at: later(NIGHT, -3_000_000),
        kind: 'received',
        ref: uuid(),
        from: e164,
        to: firm.portland.e164,
        text: 'Are you there?',
      },
      NIGHT,
    )
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), NIGHT)).resolves.toMatchObject({ leavesAt: expect.any(Number) })
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland), later(NIGHT, 700_000))).rejects.toMatchObject({
      details: { type: 'night' },
    })
  })

  it('holds what comes to its turn too late, until a person lets it go', async () => {
    const carrier = fakeCarrier()
    const nine = new Date('2026-11-26T06:59:58Z')
    const { id } = await queued({}, nine)
    await drain(later(nine, TAKE_BACK_MS))
    expect(await stateOf(id)).toBe('held night')
    await expect(letGo(firm.mika, id, nine)).rejects.toMatchObject({ details: { status: 404 } })
    await letGo(firm.ada, id, later(nine, 60_000))
    await drain(later(nine, 60_000))
    expect([carrier.asked.length, await stateOf(id)]).toEqual([1, 'accepted'])
  })
})

describe('the carrier\'s answers', () => {
  it('a refusal is final and keeps its code', async () => {
    const carrier = fakeCarrier()
    const { id } = await queued()
    carrier.next({ kind: 'refused', code: 'recipient-not-mobile' })
    await drain(later(LEFT, 600_000))
    expect([carrier.asked.length, await stateOf(id)]).toEqual([1, 'failed recipient-not-mobile'])
  })

  it('a lost answer is asked again with the same key', async () => {
    const carrier = fakeCarrier()
    const { id } = await queued()
    carrier.next({ kind: 'try-later', afterMs: null, certain: false, code: 'answer-lost' })
    await drain(LEFT)
    expect(await stateOf(id)).toBe('handing-over')
    await drain(later(LEFT, 60_000))
    expect(carrier.asked.map(text => text.key)).toEqual([id, id])
    expect(await stateOf(id)).toBe('accepted')
  })

  it.each([
    [true, 'held carrier-away'],
    [false, 'not-known answer-lost'],
  ])('after an hour without one (surely not taken: %s) it is %s', async (certain, state) => {
    const carrier = fakeCarrier()
    const { id } = await queued()
    for (const after of [0, 30 * 60_000, 59 * 60_000, 61 * 60_000]) {
      carrier.next({ kind: 'try-later', afterMs: null, certain, code: 'carrier-unreachable' })
      await drain(later(LEFT, after))
    }
    expect(await stateOf(id)).toBe(state)
    await drain(later(LEFT, 24 * 3_600_000))
    expect(carrier.asked).toHaveLength(4)
  })

  it('a slow claimant\'s late result is ignored', async () => {
    const carrier = fakeCarrier()
    const { id } = await queued()
    const { works: [slow] } = await takeDue({ handlers: { [HAND_OVER]: handOver } }, () => LEFT, 20)
    await takeLeasesBack()
    carrier.next(async (text) => {
      // while this one waits for its answer, another claims the job and finishes
      await drain(LEFT)
      return { kind: 'refused', code: `late ${text.key}` }
    })
    await slow!()
    expect([carrier.asked.length, await stateOf(id)]).toEqual([2, 'accepted'])
  })
})

describe('a private line', () => {
  it('shows on the timeline to those who answer it, and to nobody else', async () => {
    fakeCarrier()
    const { phoneId, recordId } = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(phoneId, firm.own, { text: 'between us' }), DAY)
    const words = async (who: Firm['ada']) => (await readTimeline(who, recordId)).entries.map(entry => entry.words)
    expect(await words(firm.ada)).toContain('between us')
    expect(await words(firm.odile)).toContain('between us')
    expect(await words(firm.mika)).not.toContain('between us')
  })
})
