import { v7 as uuid } from 'uuid'
import type { TimelineEntry } from '~~/shared/timeline'
import { messagesQuery, sieve, timelineExport, type Sieve } from '~~/shared/schemas/timeline'
import { takeEvent } from '~~/server/texting/events'
import { nameMessage } from '~~/server/texting/name'
import { sendText } from '~~/server/texting/send'
import { takeBack } from '~~/server/texting/take-back'
import { exportTimeline } from '~~/server/timeline/export'
import { addNote } from '~~/server/timeline/note'
import { readAt, readMessages, readRhythm, readTimeline } from '~~/server/timeline/read'
import { showOnMatter, takeOffMatter } from '~~/server/timeline/show-on'
import { sifted } from '~~/server/timeline/sieve'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, makeThing, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let recordId: string
let phoneId: string
let e164: string
const HOUR = 3_600_000
const AFTER = (hours: number) => later(DAY, hours * HOUR)

beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  const lead = await makeLead(firm.ada)
  recordId = lead.recordId
  phoneId = lead.phoneId
  e164 = lead.e164
  await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'The cargo trike is in' }), AFTER(1))
  await sendText(firm.mika, textTo(phoneId, firm.second, { text: 'Shall I bring the trike on Monday?' }), AFTER(25))
  const received = { id: uuid(), at: AFTER(26), kind: 'received' as const, ref: uuid(), from: e164, to: firm.second.e164, text: 'Yes, Monday' }
  await takeEvent('practice', received, AFTER(26))
  await addNote(firm.ada, recordId, { id: uuid(), words: 'Wants a rain cover' }, AFTER(49))
})

const problem = (status: number) => ({ details: { status } })
const asked = (values: object): Sieve => sieve.validateSync(values)
const said = ({ kind, words }: TimelineEntry) => words ?? kind
const left = async (values: object, who = firm.ada) =>
  (await readTimeline(who, recordId, undefined, sifted(asked(values), firm.ada.zone))).entries.map(said)

describe('narrowing a timeline', () => {
  it.each([
    [{ groups: ['texts'] }, ['Yes, Monday', 'Shall I bring the trike on Monday?', 'The cargo trike is in']],
    [{ groups: ['notes'] }, ['Wants a rain cover']],
    [{ groups: ['texts', 'notes'], from: 'theirs' }, ['Yes, Monday']],
    [{ from: 'ours' }, ['Shall I bring the trike on Monday?', 'The cargo trike is in']],
    [{ words: 'trike' }, ['Shall I bring the trike on Monday?', 'The cargo trike is in']],
    [{ words: 'mon trike' }, []],
    [{ words: 'trike mon' }, ['Shall I bring the trike on Monday?']],
    [{ words: '%' }, ['Wants a rain cover', 'Yes, Monday', 'Shall I bring the trike on Monday?', 'The cargo trike is in', 'record-made']],
    [{ since: '2026-11-26', until: '2026-11-26' }, ['Yes, Monday', 'Shall I bring the trike on Monday?']],
    [{ until: '2026-11-24' }, []],
    [{ groups: 'notes', words: 'rain' }, ['Wants a rain cover']],
  ])('to %j leaves what is like that', async (values, expected) => {
    expect(await left(values)).toEqual(expected)
  })

  it('to a colleague or a line leaves what they said and what went over it', async () => {
    expect(await left({ colleagueId: firm.mika.id })).toEqual(['Shall I bring the trike on Monday?'])
    expect(await left({ lineId: firm.second.id })).toEqual(['Yes, Monday', 'Shall I bring the trike on Monday?'])
  })

  it('goes to a day with what stands around it', async () => {
    const page = await readAt(firm.ada, recordId, AFTER(26).getTime() + 1)
    expect(page.entries.map(said)).toContain('Wants a rain cover')
    expect(page.entries.map(said).indexOf('Yes, Monday')).toBeGreaterThan(page.entries.map(said).indexOf('Wants a rain cover'))
    expect(page.newer).toBe(false)
  })

  it('shows nobody what they may not read', async () => {
    await expect(left({ words: 'trike' }, firm.noor)).rejects.toMatchObject(problem(404))
  })
})

describe('the rhythm', () => {
  it('does not count what was taken back before it left', async () => {
    const lead = await makeLead(firm.ada)
    const ours = async () => (await readRhythm(firm.ada, lead.recordId, later(DAY, -HOUR), 0)).reduce((sum, day) => sum + day.ours, 0)
    const { id } = await sendText(firm.ada, textTo(lead.phoneId, firm.portland), DAY)
    expect(await ours()).toBe(1)
    await takeBack(firm.ada, id, later(DAY, 1_000))
    expect(await ours()).toBe(0)
  })
})

describe('texts as a table', () => {
  const rows = async (values: object) =>
    (await readMessages(firm.ada, recordId, messagesQuery.validateSync(values), sifted(asked(values), firm.ada.zone))).entries.map(said)

  it('are sorted by any column, counted, and narrowed as the timeline is', async () => {
    expect(await rows({ sort: 'words', direction: 'up' })).toEqual(['Shall I bring the trike on Monday?', 'The cargo trike is in', 'Yes, Monday'])
    expect(await rows({ sort: 'at', direction: 'up' })).toEqual(['The cargo trike is in', 'Shall I bring the trike on Monday?', 'Yes, Monday'])
    expect(await rows({ from: 'theirs' })).toEqual(['Yes, Monday'])
    expect((await readMessages(firm.ada, recordId, messagesQuery.validateSync({}), sifted(asked({}), firm.ada.zone))).count).toBe(3)
    expect(await rows({ page: 2 })).toEqual([])
  })

  it('carry a name that a colleague gives them', async () => {
    const [entry] = (await readTimeline(firm.ada, recordId, undefined, sifted(asked({ words: 'cargo' }), firm.ada.zone))).entries
    await nameMessage(firm.mika, entry!.id, 'The trike is here', DAY)
    expect(await rows({ sort: 'name', direction: 'up' })).toMatchObject({ 0: 'The cargo trike is in' })
    expect((await readTimeline(firm.ada, recordId)).entries.find(({ id }) => id === entry!.id)!.message!.name).toBe('The trike is here')
    await expect(nameMessage(firm.noor, entry!.id, 'Mine', DAY)).rejects.toMatchObject(problem(404))
  })
})

describe('taking a timeline out', () => {
  const file = async (values: object, who = firm.ada) => {
    let text = ''
    for await (const piece of await exportTimeline(who, recordId, timelineExport.validateSync(values), DAY)) text += String(piece)
    return text
  }

  it('writes CSV with all that a text is', async () => {
    const lines = (await file({ groups: 'texts' })).split('\r\n')
    expect(lines[0]).toMatch(/^\uFEFFTime \(UTC\),Kind,By,/)
    expect(lines[1]).toMatch(/^2026-11-26T20:00:00\.000Z,text-in,,,\+1808555\d{4},Minneapolis line,"Yes, Monday",received,/)
    expect(lines).toHaveLength(5)
  })

  it('writes JSON lines, each an entry', async () => {
    const entries = (await file({ format: 'jsonl' })).trim().split('\n').map(line => JSON.parse(line) as TimelineEntry)
    expect(entries.map(said)).toContain('Wants a rain cover')
  })

  it('is for those who may take the record out', async () => {
    await expect(file({}, firm.mika)).rejects.toMatchObject(problem(403))
    await expect(file({}, firm.noor)).rejects.toMatchObject(problem(404))
  })
})

describe('what a colleague has shown on a deal', () => {
  it('is taken off it again, and what is there for another reason stays', async () => {
    const deal = await makeThing(firm.ada, 'deal')
    const [entry] = (await readTimeline(firm.ada, recordId, undefined, sifted(asked({ words: 'cargo' }), firm.ada.zone))).entries
    await showOnMatter(firm.ada, entry!.id, { recordId: deal, whole: false }, DAY)
    const shown = async () => (await readTimeline(firm.ada, deal)).entries.filter(({ byHand }) => byHand).map(said)
    expect(await shown()).toEqual(['The cargo trike is in'])
    await takeOffMatter(firm.mika, entry!.id, { recordId: deal, whole: false }, DAY)
    expect(await shown()).toEqual([])
    // on the record it belongs to it cannot be taken off
    await takeOffMatter(firm.ada, entry!.id, { recordId, whole: false }, DAY)
    expect((await readTimeline(firm.ada, recordId)).entries.map(({ id }) => id)).toContain(entry!.id)
  })

  it('is on the company of a deal from which somebody outside of it was texted', async () => {
    const company = await makeThing(firm.ada, 'company', { name: 'Deal & Co' })
    const outside = await makeLead(firm.ada, { firstName: 'Out' })
    const deal = await makeThing(firm.ada, 'deal', { companyId: company }, [outside.recordId])
    await sendText(firm.ada, textTo(outside.phoneId, firm.portland, { text: 'About the deal', recordId: deal }), DAY)
    expect((await readTimeline(firm.ada, company)).entries.map(said)).toContain('About the deal')
  })
})
