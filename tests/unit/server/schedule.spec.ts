import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { zoneRules } from '~~/core/hours/zones'
import { newRef, showRef } from '~~/core/message/ref'
import { tx } from '~~/server/db/door'
import { job, message } from '~~/server/db/schema'
import { writeConsent } from '~~/server/consent/ledger'
import { takeLeasesBack } from '~~/server/jobs/outbox'
import { readRecord } from '~~/server/pages/record'
import { takeCallEvent } from '~~/server/calling/events'
import { readConversation } from '~~/server/pages/shelf'
import { draftsOf, keepDraft } from '~~/server/texting/drafts'
import { reschedule, workOutSchedule } from '~~/server/texting/schedule'
import { sendText } from '~~/server/texting/send'
import { beginWith, readStranger } from '~~/server/texting/strangers'
import { sendForm } from '~~/shared/schemas/texting'
import { letGo, takeBack } from '~~/server/texting/take-back'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { findRef } from '~~/server/timeline/find-ref'
import { readTimeline } from '~~/server/timeline/read'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
beforeEach(() => void fakeCarrier())

const stored = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!
const stateOf = async (id: string) => (({ state, code }) => code ? `${state} ${code}` : state)(await stored(id))
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const HONOLULU = 'Pacific/Honolulu'
const NINE = { wallTime: '2026-12-01T09:00', zone: HONOLULU }
const NINE_THERE = new Date('2026-12-01T19:00:00Z')
const to = (phoneId: string, values: object = {}) => textTo(phoneId, firm.portland, values)

async function scheduled(moment = NINE): Promise<{ id: string, recordId: string, e164: string }> {
  const lead = await makeLead(firm.ada)
  const form = to(lead.phoneId, { later: moment })
  await sendText(firm.ada, form, DAY)
  return { id: form.id, ...lead }
}

describe('a text for later', () => {
  it('waits until its moment by the clock there, is shown as coming next, and then leaves', async () => {
    const { id, recordId } = await scheduled()
    expect(await stored(id)).toMatchObject({ leavesAt: NINE_THERE, wallTime: '2026-12-01T09:00', wallZone: HONOLULU })
    expect((await readRecord(firm.mika, recordId, DAY)).scheduled).toMatchObject([
      { id, words: 'Hi Iris, Ada here.', leavesAt: NINE_THERE.getTime(), author: 'Ada' },
    ])
    await drain(later(NINE_THERE, -1_000))
    expect(await stateOf(id)).toBe('waiting')
    await takeLeasesBack()
    await drain(NINE_THERE)
    expect(await stateOf(id)).toBe('accepted')
    expect((await readRecord(firm.mika, recordId, DAY)).scheduled).toEqual([])
  })

  it('leaves at nine there, on both sides of a change of summer time', async () => {
    const { phoneId } = await makeLead(firm.ada, { region: 'NY', city: 'Utica', zone: 'America/New_York' }, '315 555 0121')
    const leavesAt = async (wallTime: string) =>
      new Date((await sendText(firm.ada, to(phoneId, { later: { wallTime, zone: 'America/New_York' } }), DAY)).leavesAt).toISOString()
    expect([await leavesAt('2027-03-13T09:00'), await leavesAt('2027-03-14T09:00')]).toEqual([
      '2027-03-13T14:00:00.000Z',
      '2027-03-14T13:00:00.000Z',
    ])
  })

  it('does not stand in the way of what is written to the same person before it', async () => {
    const lead = await makeLead(firm.ada)
    const [tomorrow, now] = [to(lead.phoneId, { later: NINE }), to(lead.phoneId)]
    await sendText(firm.ada, tomorrow, DAY)
    await sendText(firm.ada, now, later(DAY, 1_000))
    await drain(later(DAY, 1_000 + TAKE_BACK_MS))
    expect([await stateOf(now.id), await stateOf(tomorrow.id)]).toEqual(['accepted', 'waiting'])
  })

  it.each([
    [{ wallTime: '2026-11-25T07:00', zone: HONOLULU }, 'later.wallTime', /has passed/],
    [{ wallTime: '2028-01-01T09:00', zone: HONOLULU }, 'later.wallTime', /year/],
    [{ wallTime: '2027-03-14T02:30', zone: 'America/New_York' }, 'later.wallTime', /never comes there.*03:30/],
    [{ wallTime: '2026-12-01T09:00', zone: 'Mars/Base' }, 'later.zone', /time zone/],
  ])('is refused for %j', async (moment, field, reason) => {
    const { phoneId } = await makeLead(firm.ada)
    await expect(sendText(firm.ada, to(phoneId, { later: moment }), DAY)).rejects.toMatchObject(
      problem(422, { fields: { [field]: expect.stringMatching(reason) } }),
    )
  })

  it('is asked about when its moment is in their night', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const night = { later: { wallTime: '2026-12-01T05:00', zone: HONOLULU } }
    await expect(sendText(firm.ada, to(phoneId, night), DAY)).rejects.toMatchObject(
      problem(409, { type: 'night', notBefore: Date.UTC(2026, 11, 1, 18) }),
    )
    await expect(sendText(firm.ada, to(phoneId, { ...night, nightAllowed: true }), DAY)).resolves.toMatchObject({
      leavesAt: Date.UTC(2026, 11, 1, 15),
    })
  })

  it('does not leave when the person has opted out meanwhile', async () => {
    const { id, e164 } = await scheduled()
    await writeConsent({ e164, at: later(DAY, 1_000), kind: 'refused', covers: 'texts', how: 'text', words: 'STOP' })
    await drain(NINE_THERE)
    expect(await stateOf(id)).toBe('held opted-out')
  })

  it('is held when it is more than a quarter of an hour late, and leaves when somebody says so', async () => {
    const { id } = await scheduled()
    const late = later(NINE_THERE, 16 * 60_000)
    await drain(late)
    expect(await stateOf(id)).toBe('held late')
    await expect(letGo(firm.mika, id, late)).rejects.toMatchObject(problem(404))
    await letGo(firm.ada, id, late)
    await drain(late)
    expect(await stateOf(id)).toBe('accepted')
  })

  it('is put to another time, sent at once, or taken back by whoever wrote it, until it has left', async () => {
    const { id } = await scheduled()
    await expect(reschedule(firm.mika, id, { later: NINE, nightAllowed: false }, DAY)).rejects.toMatchObject(problem(404))
    await expect(
      reschedule(firm.ada, id, { later: { ...NINE, wallTime: '2026-12-01T04:00' }, nightAllowed: false }, DAY),
    ).rejects.toMatchObject(problem(409, { type: 'night' }))
    await reschedule(firm.ada, id, { later: { ...NINE, wallTime: '2026-12-02T10:30' }, nightAllowed: false }, DAY)
    await drain(NINE_THERE)
    expect(await stored(id)).toMatchObject({ state: 'waiting', leavesAt: new Date('2026-12-02T20:30:00Z') })
    await reschedule(firm.ada, id, { later: null, nightAllowed: false }, DAY)
    await drain(later(DAY, TAKE_BACK_MS))
    expect(await stored(id)).toMatchObject({ state: 'accepted', wallTime: null })
    await expect(reschedule(firm.ada, id, { later: NINE, nightAllowed: false }, DAY)).rejects.toMatchObject(
      problem(409, { type: 'has-left' }),
    )
    const other = await scheduled()
    await takeBack(firm.ada, other.id, DAY)
    await drain(NINE_THERE)
    expect(await stateOf(other.id)).toBe('taken-back')
  })

  it('is worked out anew when the rules of its zone have changed', async () => {
    const { id } = await scheduled()
    expect(await workOutSchedule()).toBe(0)
    const rules = zoneRules(HONOLULU)!
    const offsets = [...rules.offsets]
    try {
      // Hawaii decides on an hour of summer time for good
      rules.offsets.fill(-540)
      expect(await workOutSchedule()).toBeGreaterThan(0)
    }
    finally {
      offsets.forEach((offset, i) => rules.offsets[i] = offset)
    }
    expect(await stored(id)).toMatchObject({ leavesAt: later(NINE_THERE, -3_600_000), wallTime: '2026-12-01T09:00' })
    const [due] = await tx(database => database.select({ dueAt: job.dueAt }).from(job).where(eq(job.key, `hand-over ${id}`)))
    expect(due).toEqual({ dueAt: later(NINE_THERE, -3_600_000) })
    await workOutSchedule()
  })
})

describe('the reference of a text', () => {
  it('is its draft’s, and finds it for those who may see it, whoever it is asked by', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    const ref = newRef(() => 123_456_789)
    await sendText(firm.ada, to(phoneId, { ref, text: `Hi Iris, your ref is ${showRef(ref)}.` }), DAY)
    expect(await findRef(firm.mika, showRef(ref).toLowerCase())).toMatchObject({
      kind: 'found',
      ref,
      said: { recordId, recordName: 'Iris Holm' },
    })
    expect(await findRef(firm.noor, ref)).toEqual({ kind: 'unknown', ref })
    expect(await findRef(firm.ada, showRef(`${ref.slice(0, 3)}${ref[3] === 'Z' ? 'Y' : 'Z'}${ref.slice(4)}`))).toEqual({ kind: 'mistyped' })
    expect(await findRef(firm.ada, 'bakery')).toEqual({ kind: 'no-ref' })
    await expect(sendText(firm.ada, to(phoneId, { ref }), DAY)).rejects.toMatchObject(problem(409, { type: 'ref-taken' }))
  })

  it('is given to every text, ours and theirs', async () => {
    const { phoneId, recordId } = await makeLead(firm.ada)
    await sendText(firm.ada, to(phoneId), DAY)
    const [entry] = (await readTimeline(firm.ada, recordId)).entries
    expect(await findRef(firm.ada, entry!.message!.ref!)).toMatchObject({ kind: 'found', said: { id: entry!.id } })
  })
})

describe('a draft', () => {
  const ref = newRef(() => 1)
  const write = (key: string, text: string, at: number, who = firm.ada) =>
    keepDraft(who, { key, text, at, ref, templateId: null, templateVersion: null, pictureIds: [] })

  it('is kept for its writer, named by whom it is for, the later word of two windows', async () => {
    const { recordId } = await makeLead(firm.ada)
    const key = `record ${recordId}`
    await write(key, 'Hi Iris, the second window', 2_000)
    await write(key, 'Hi Iris, the first window, late', 1_000)
    expect(await draftsOf(firm.ada)).toMatchObject([{ key, text: 'Hi Iris, the second window', name: 'Iris Holm', recordId, at: 2_000 }])
    expect(await draftsOf(firm.mika)).toEqual([])
    // of a record that one may see no more, only one's own words are left
    await write(key, 'Hi', 1_000, firm.noor)
    expect(await draftsOf(firm.noor)).toMatchObject([{ name: null, recordId: null }])
  })

  it('is none any more once it has left as a text, though its last word comes late', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    const own = newRef(() => 987_654_321)
    const words = (at: number) =>
      keepDraft(firm.ada, {
        key: `record ${recordId}`,
        text: 'Hi Iris, Ada here.',
        at,
        ref: own,
        templateId: null,
        templateVersion: null,
        pictureIds: [],
      })
    const is = async () => (await draftsOf(firm.ada)).some(one => one.recordId === recordId)
    await words(1_000)
    expect(await is()).toBe(true)
    await sendText(firm.ada, to(phoneId, { ref: own }), DAY)
    expect(await is()).toBe(false)
    await words(2_000)
    expect(await is()).toBe(false)
  })

  it('is forgotten when it is emptied, but not by what is older', async () => {
    const key = `conversation ${uuid()}`
    await write(key, 'Yes', 2_000)
    await write(key, '', 1_000)
    expect((await draftsOf(firm.ada)).some(one => one.key === key)).toBe(true)
    await write(key, '', 3_000)
    expect((await draftsOf(firm.ada)).some(one => one.key === key)).toBe(false)
  })
})

describe('a number that is on no record', () => {
  it('is texted from the nearest line of mine in its country, and its conversation comes onto the record that is made of it', async () => {
    expect(await readStranger(firm.ada, '(612) 555-0177')).toEqual({ kind: 'number', e164: '+16125550177', line: 'Minneapolis line', last: null })
    const { conversationId } = await beginWith(firm.ada, '612 555 0177', {}, DAY)
    const form = sendForm.validateSync({
      id: uuid(),
      lineId: firm.second.id,
      conversationId,
      text: 'Hi, Ada from Pannier & Post. You rang us?',
    })
    await sendText(firm.ada, form, DAY)
    const { recordId } = await makeLead(firm.ada, { firstName: 'Bea' }, '612 555 0177')
    expect((await readTimeline(firm.ada, recordId)).entries.map(({ words }) => words)).toContain(
      'Hi, Ada from Pannier & Post. You rang us?',
    )
    // from now on that record is meant
    expect(await beginWith(firm.ada, '612 555 0177', {}, DAY)).toEqual({ conversationId: null, recordId })
  })

  it('is found by the call that came from it, which stands in its conversation, for those who answer the line', async () => {
    fakeExchange()
    const told = { kind: 'incoming' as const, id: uuid(), ref: uuid(), key: null, line: firm.second.e164, remote: '+16125550178', at: DAY }
    await takeCallEvent('practice', told, DAY)
    expect(await readStranger(firm.ada, '612 555 0178')).toMatchObject({ last: { at: DAY.getTime(), how: 'call' } })
    expect(await readStranger(firm.noor, '612 555 0178')).not.toMatchObject({ last: { how: 'call' } })
    const { conversationId } = await beginWith(firm.ada, '612 555 0178', {}, DAY)
    expect((await readConversation(firm.ada, conversationId!, DAY)).entries.map(({ kind }) => kind)).toEqual(['call-in'])
  })

  it('says why where it cannot be', async () => {
    expect(await readStranger(firm.ada, '612 555')).toMatchObject({ kind: 'unusable' })
    expect(await readStranger(firm.ada, '+44 7700 900123')).toEqual({ kind: 'unusable', reason: 'no-line' })
    await expect(beginWith(firm.ada, '612 555', {}, DAY)).rejects.toMatchObject(problem(422))
  })
})
