import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { startCheck } from '~~/server/bulk/check'
import { addToBulk, makeBulk, writeBulk } from '~~/server/bulk/make'
import { previewPlan } from '~~/server/bulk/plan'
import { listBulks, readBulk, readBulkPeople } from '~~/server/bulk/read'
import { startBulk, turnBulk } from '~~/server/bulk/run'
import { takeOut } from '~~/server/bulk/take-out'
import { tx } from '~~/server/db/door'
import { firm as firmTable, line, moneyAccount, phone, record } from '~~/server/db/schema'
import { readInbox } from '~~/server/pages/inbox'
import { readHouseRules, saveHouseRules } from '~~/server/identity/house-rules'
import { takeEvent } from '~~/server/texting/events'
import { readTimeline } from '~~/server/timeline/read'
import { addToBulkForm, bulkPeopleQuery, makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { inboxQuery } from '~~/shared/schemas/inbox'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, makeThing, NIGHT, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const list = { module: 'lead', sort: 'name', direction: 'up' }
const selectionOf = (ids: string[]) => makeBulkForm.validateSync({ id: uuid(), name: 'x', selection: { list, ids } }).selection
/** Each case has a clock of its own, days after the others': nobody is texted lately by mistake. */
let days = 0
let now = DAY
beforeEach(() => now = later(DAY, 10 * ++days * 86_400_000))

async function bulkOf(people: { recordId: string }[], values: object = {}, who = firm.ada): Promise<string> {
  const id = uuid()
  await makeBulk(who, makeBulkForm.validateSync({ id, name: 'Winter tyres', selection: { list, ids: people.map(({ recordId }) => recordId) } }), now)
  await writeBulk(who, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: 'Hi {{ person.first_name }}, it is time for winter tyres. Ada', lineId: firm.portland.id, ...values }), now)
  return id
}
async function checked(id: string, who = firm.ada) {
  await startCheck(who, id, now)
  await drain(now)
  return readBulk(who, id)
}
const people = async (id: string, values: object = {}) => (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast(values))).rows
const start = (id: string, values: object = {}) => startBulk(firm.ada, id, startBulkForm.cast(values), now)
/** Goes through so many seconds, as the outbox would. */
async function seconds(count: number): Promise<void> {
  for (let i = 0; i < count; i++) {
    now = later(now, 1_000)
    await drain(now)
  }
}
const got = () => carrier.asked.map(({ to }) => to)

describe('gathering people', () => {
  it('counts whoever is met twice once, and says how many came and how many were there', async () => {
    const [one, two, three] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await bulkOf([one, two])
    const more = addToBulkForm.validateSync({ selection: selectionOf([two.recordId, three.recordId]) })
    expect(await addToBulk(firm.ada, id, more, now)).toEqual({ added: 1, again: 1, people: 3 })
    expect(await readBulk(firm.ada, id)).toMatchObject({ people: 3, state: 'draft', modules: ['lead'] })
  })

  it('is for whoever made it and their lead, and takes only whom they may see', async () => {
    const [mine, hers] = [await makeLead(firm.ada), await makeLead(firm.noor)]
    await expect(bulkOf([hers])).rejects.toMatchObject(problem(422, { fields: { selection: expect.stringContaining('Nobody') } }))
    const id = await bulkOf([mine])
    await expect(readBulk(firm.noor, id)).rejects.toMatchObject(problem(404))
    await expect(turnBulk(firm.mika, id, 'stop', now)).rejects.toMatchObject(problem(404))
    expect((await listBulks(firm.odile)).map(one => one.id)).toContain(id)
    expect((await listBulks(firm.mika)).map(one => one.id)).not.toContain(id)
  })
})

describe('the wording', () => {
  it('is refused where it cannot be filled, a fill-in is empty, or the moment has passed', async () => {
    const id = await bulkOf([await makeLead(firm.ada)])
    const write = (values: object) => writeBulk(firm.ada, id, writeBulkForm.cast({ name: 'x', ...values }), now)
    await expect(write({ body: 'Hi {{ person.nickname }}' })).rejects.toMatchObject(problem(422, { fields: { body: expect.any(String) } }))
    const fillIns = [{ key: 'when', label: 'When', kind: 'text', example: '', options: [] }]
    await expect(write({ body: 'At {{ fill_in.when }}', fillIns })).rejects.toMatchObject(problem(422, { fields: { 'answers.when': expect.any(String) } }))
    await expect(write({ body: 'Hi', eventAt: now.getTime() - 1 })).rejects.toMatchObject(problem(422, { fields: { eventAt: expect.any(String) } }))
    await expect(write({ body: 'Hi', lineId: firm.halifax.id })).rejects.toMatchObject(problem(422, { fields: { lineId: expect.any(String) } }))
  })
})

describe('the check', () => {
  it('says of each what they would get, or why nothing', async () => {
    const ready = await makeLead(firm.ada, { firstName: 'Zadie', lastName: 'Aas' })
    const nameless = await makeLead(firm.ada, { firstName: '', lastName: 'Okafor' })
    const nobody = await makeLead(firm.ada, { phones: [] }).catch(() => null)
    const out = await makeLead(firm.ada)
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: out.e164, to: firm.portland.e164, text: 'STOP' }, now)
    const unsure = await makeLead(firm.ada)
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: unsure.e164, to: firm.portland.e164, text: 'please do not text me any more' }, now)
    const abroad = await makeLead(firm.ada, { country: 'GB', region: null }, '+447700900321')
    const twin = await makeLead(firm.ada, { firstName: 'Zz' }, ready.e164)
    now = later(now, 5 * 86_400_000)
    const id = await bulkOf([ready, nameless, out, unsure, abroad, twin, ...nobody ? [nobody] : []])
    const detail = await checked(id)
    expect(detail).toMatchObject({ state: 'checked', counts: { 'ready': 1, 'left-out': detail.people - 1 } })
    const found = Object.fromEntries((await people(id)).map(one => [one.recordId, one]))
    expect(found[ready.recordId]).toMatchObject({ standing: 'ready', words: 'Hi Zadie, it is time for winter tyres. Ada', parts: 1, line: 'Portland line' })
    expect(found[nameless.recordId]).toMatchObject({ reason: 'empty-field', detail: expect.stringMatching(/first name/i) })
    expect([out, unsure, abroad, twin].map(({ recordId }) => found[recordId]!.reason)).toEqual(['opted-out', 'open-wish', 'no-line', 'same-number'])
    expect(detail.longest).toMatchObject({ name: 'Zadie Aas' })
    expect(detail.cost).toEqual({ micros: 8_000, currency: 'USD' })
  })

  it('takes each person’s usual line, else the nearest of those in their country', async () => {
    const [usual, near] = [await makeLead(firm.ada), await makeLead(firm.ada, {}, '612 555 0177')]
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: usual.e164, to: firm.portland.e164, text: 'Hello' }, now)
    now = later(now, 5 * 86_400_000)
    const id = await bulkOf([usual, near], { lineId: null })
    await checked(id)
    const found = Object.fromEntries((await people(id)).map(one => [one.recordId, one.line]))
    expect([found[usual.recordId], found[near.recordId]]).toEqual(['Portland line', 'Minneapolis line'])
  })

  it('points out whom we have texted lately; they are taken out together, and one of them put back', async () => {
    const [one, two, three] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const first = await bulkOf([one, two])
    await checked(first)
    await start(first)
    await seconds(4)
    now = later(now, 86_400_000)
    const id = await bulkOf([one, two, three])
    expect(await checked(id)).toMatchObject({ lately: 2, counts: { ready: 3 } })
    expect(await takeOut(firm.ada, id, { lately: true, recordId: null, out: true }, now)).toEqual({ people: 2 })
    await takeOut(firm.ada, id, { recordId: two.recordId, lately: false, out: false }, now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ counts: { 'ready': 2, 'taken-out': 1 } })
    // who was taken out by hand stays out when it is checked anew
    expect(await checked(id)).toMatchObject({ counts: { 'ready': 2, 'taken-out': 1 } })
  })

  it('goes through more people than one piece holds, and counts none twice', async () => {
    const many = await Promise.all(Array.from({ length: 130 }, (_, i) => makeLead(firm.ada, {}, `+1808555${2_000 + i}`)))
    const id = await bulkOf(many)
    const detail = await checked(id)
    expect(detail.counts.ready + detail.counts['left-out']).toBe(130)
    expect(detail.checked).toBe(130)
    const again = await checked(id)
    expect(again.counts).toEqual(detail.counts)
  }, 60_000)

  it('begins anew when the wording changes, and what the old one found is not kept', async () => {
    const one = await makeLead(firm.ada, { firstName: 'Zadie' })
    const id = await bulkOf([one])
    await startCheck(firm.ada, id, now)
    await writeBulk(firm.ada, id, writeBulkForm.cast({ name: 'Other', body: 'Hello {{ person.first_name }}' }), now)
    await drain(now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'draft', checked: 0 })
    await expect(start(id)).rejects.toMatchObject(problem(409))
    await checked(id)
    expect(await people(id)).toEqual([expect.objectContaining({ words: 'Hello Zadie' })])
  })
})

describe('a bulk text under way', () => {
  it('reaches each once, at the rate of the line, and is done', async () => {
    const five = await Promise.all(Array.from({ length: 5 }, () => makeLead(firm.ada)))
    const id = await bulkOf(five)
    await checked(id)
    expect(await previewPlan(firm.ada, id, startBulkForm.cast({}), now)).toMatchObject({
      start: now.getTime(), last: now.getTime() + 4_000, left: [], lines: [{ name: 'Portland line', people: 5 }],
      places: [{ zones: ['Pacific/Honolulu'], people: 5, closed: [{ from: expect.any(Number), to: now.getTime() }, expect.anything()] }],
    })
    expect(await start(id)).toEqual({ leaves: 5, left: [] })
    await drain(now)
    await seconds(2)
    expect(got().length).toBe(3)
    await seconds(4)
    expect(new Set(got())).toEqual(new Set(five.map(({ e164 }) => e164)))
    expect(got().length).toBe(5)
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'done', counts: { texted: 5, ready: 0 }, states: { accepted: 5 } })
    const entries = await readTimeline(firm.ada, five[0]!.recordId)
    expect(entries.entries[0]).toMatchObject({ words: expect.stringContaining('winter tyres'), message: { origin: 'bulk' } })
  })

  it('waits for their morning, and goes on by itself then', async () => {
    const one = await makeLead(firm.ada)
    now = later(NIGHT, 10 * days * 86_400_000)
    const id = await bulkOf([one])
    await checked(id)
    await start(id)
    await seconds(3)
    expect(got()).toEqual([])
    const [run] = (await readBulk(firm.ada, id)).runs!
    expect(new Date(run!.from).toISOString().slice(11)).toBe('18:00:00.000Z')
    now = new Date(run!.from)
    await drain(now)
    expect(got()).toEqual([one.e164])
  })

  it('says which start is early enough for its event', async () => {
    const leads = [await makeLead(firm.ada), await makeLead(firm.ada)]
    // noon in Honolulu
    const id = await bulkOf(leads, { eventAt: now.getTime() + 4 * 3_600_000 })
    await checked(id)
    const latest = async () => (await previewPlan(firm.ada, id, startBulkForm.cast({}), now)).latestStart
    expect(await latest()).toBe(now.getTime() + 3.75 * 3_600_000)
    now = later(now, 5 * 3_600_000)
    expect(await latest()).toBeNull()
  })

  it('leaves out whoever could not be reached before the event', async () => {
    const three = await Promise.all(Array.from({ length: 3 }, () => makeLead(firm.ada)))
    const id = await bulkOf(three, { occasion: 'Fitting day', eventAt: now.getTime() + 1_500 })
    await checked(id)
    expect(await start(id)).toEqual({ leaves: 2, left: [{ why: 'after-event', people: 1 }] })
    await seconds(4)
    expect(got().length).toBe(2)
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'done', leftOut: [{ reason: 'after-event', people: 1 }] })
  })

  it('pauses for all that has not been handed over, goes on, and stops; each gets it once', async () => {
    const six = await Promise.all(Array.from({ length: 6 }, () => makeLead(firm.ada)))
    const id = await bulkOf(six)
    await checked(id)
    await start(id)
    await drain(now)
    await seconds(1)
    expect(got().length).toBe(2)
    await turnBulk(firm.ada, id, 'pause', now)
    await seconds(5)
    expect(got().length).toBe(2)
    await turnBulk(firm.ada, id, 'go-on', now)
    await drain(now)
    await seconds(1)
    await turnBulk(firm.ada, id, 'stop', now)
    await seconds(5)
    const before = got().length
    expect(before).toBeGreaterThan(2)
    expect(before).toBeLessThan(6)
    expect((await readBulk(firm.ada, id)).counts).toMatchObject({ texted: before, ready: 6 - before })
    await turnBulk(firm.ada, id, 'go-on', now)
    await seconds(8)
    expect(got().sort()).toEqual(six.map(({ e164 }) => e164).sort())
  })

  it('holds what is on its way while it is paused, and takes it back when it is stopped', async () => {
    const one = await makeLead(firm.ada)
    const id = await bulkOf([one])
    await checked(id)
    await start(id)
    // its carrier has no room, so that it waits
    carrier.next({ kind: 'no-room', afterMs: 1_000 })
    await drain(now)
    expect(got().length).toBe(1)
    await turnBulk(firm.ada, id, 'pause', now)
    await seconds(12)
    expect(got().length).toBe(1)
    await turnBulk(firm.ada, id, 'stop', now)
    await seconds(12)
    expect(got().length).toBe(1)
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'stopped', counts: { ready: 1, texted: 0 } })
    await turnBulk(firm.ada, id, 'go-on', now)
    await seconds(3)
    expect(got()).toEqual([one.e164, one.e164])
    expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'done', counts: { texted: 1 } })
  })

  it('refuses whoever says STOP meanwhile, and texts whoever has moved when it is day there', async () => {
    const [one, two, three] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await bulkOf([one, two, three])
    await checked(id)
    await start(id)
    await drain(now)
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: two.e164, to: firm.portland.e164, text: 'STOP' }, now)
    await tx(database => database.update(record).set({ zone: 'Asia/Tokyo', region: null, country: null }).where(eq(record.id, three.recordId)))
    await seconds(6)
    expect(got().filter(to => to !== two.e164)).toEqual([one.e164])
    expect(await people(id, { standing: 'refused' })).toEqual([expect.objectContaining({ recordId: two.recordId, detail: expect.stringContaining('opted out') })])
    const detail = await readBulk(firm.ada, id)
    expect(detail).toMatchObject({ state: 'running', counts: { ready: 1 } })
    now = new Date(detail.runs![0]!.from)
    await drain(now)
    expect(got().at(-1)).toBe(three.e164)
  })

  it('texts nobody on a number that was corrected meanwhile, and says so', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await bulkOf([one, two])
    await checked(id)
    await tx(database => database.update(phone).set({ e164: '+18085559999' }).where(eq(phone.id, one.phoneId)))
    await start(id)
    await seconds(4)
    expect(got()).toEqual([two.e164])
    expect(await people(id, { standing: 'refused' })).toEqual([expect.objectContaining({ detail: expect.stringContaining('another one') })])
  })

  it('leaves out whoever wants to be reached at no hour of the day, and waits for whoever has come to want another hour', async () => {
    const [never, other] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    // as it may have been before anybody looked at what is typed
    await tx(database => database.update(record).set({ wishFrom: 21, wishTo: 23 }).where(eq(record.id, never.recordId)))
    const id = await bulkOf([never, other])
    expect(await checked(id)).toMatchObject({ leftOut: [{ reason: 'never-in-hours', people: 1 }], counts: { ready: 1 } })
    await tx(database => database.update(record).set({ wishFrom: 12, wishTo: 13 }).where(eq(record.id, other.recordId)))
    await start(id)
    await seconds(3)
    expect(got()).toEqual([])
    const { state, runs } = await readBulk(firm.ada, id)
    // twelve there is 22:00 UTC
    expect([state, new Date(runs![0]!.from).toISOString().slice(11, 16)]).toEqual(['running', '22:00'])
    await turnBulk(firm.ada, id, 'stop', now)
  })

  it('pauses by itself when its line is closed', async () => {
    const one = await makeLead(firm.ada)
    const id = await bulkOf([one])
    await checked(id)
    await start(id)
    await tx(database => database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.portland.id)))
    try {
      await seconds(2)
      expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'paused', why: expect.stringContaining('not in use') })
    }
    finally {
      await tx(database => database.update(line).set({ state: 'active' }).where(eq(line.id, firm.portland.id)))
    }
  })

  it('says what was checked, whatever becomes of the record meanwhile', async () => {
    const one = await makeLead(firm.ada, { firstName: 'Zadie' })
    const id = await bulkOf([one])
    await checked(id)
    await tx(database => database.update(record).set({ firstName: 'Renamed' }).where(eq(record.id, one.recordId)))
    await start(id)
    await seconds(2)
    expect(carrier.asked.at(-1)!.text).toContain('Hi Zadie')
  })

  it('pauses by itself when texting is switched off or its line is, and says why', async () => {
    const one = await makeLead(firm.ada)
    const id = await bulkOf([one])
    await checked(id)
    await start(id)
    await tx(database => database.update(firmTable).set({ textingOn: false }))
    try {
      await seconds(2)
      expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'paused', why: expect.stringContaining('off'), counts: { ready: 1 } })
    }
    finally {
      await tx(database => database.update(firmTable).set({ textingOn: true }))
    }
    await turnBulk(firm.ada, id, 'go-on', now)
    await seconds(2)
    expect(got()).toEqual([one.e164])
  })

  it('starts only where all of it is covered, and pauses by itself when others spend the money meanwhile', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await bulkOf([one, two])
    await checked(id)
    const have = (micros: number, prepaid = true) => tx(database => database.update(moneyAccount)
      .set({ prepaid, balanceMicros: sql`${moneyAccount.heldMicros} + ${micros}` }).where(eq(moneyAccount.currency, 'USD')))
    try {
      await have(15_999)
      await expect(start(id)).rejects.toMatchObject(problem(409, { type: 'no-balance', detail: expect.stringMatching(/All of it costs 1\.6 ¢/) }))
      expect((await readBulk(firm.ada, id)).state).toBe('checked')
      await have(16_000)
      await start(id)
      await have(8_000)
      await seconds(3)
      expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'paused', why: expect.stringContaining('left to pay with'), counts: { ready: 1, texted: 1 } })
      await have(8_000)
      await turnBulk(firm.ada, id, 'go-on', now)
      await seconds(3)
      expect(got().sort()).toEqual([one.e164, two.e164].sort())
    }
    finally {
      await have(0, false)
    }
  })

  it('goes on no earlier than it was meant to start, and has a place for whoever comes back', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await bulkOf([one, two])
    await checked(id)
    await takeOut(firm.ada, id, { recordId: two.recordId, lately: false, out: true }, now)
    const from = now.getTime() + 60_000
    await start(id, { start: from })
    await turnBulk(firm.ada, id, 'pause', now)
    await turnBulk(firm.ada, id, 'go-on', now)
    await takeOut(firm.ada, id, { recordId: two.recordId, lately: false, out: false }, now)
    await seconds(3)
    expect(got()).toEqual([])
    expect((await readBulk(firm.ada, id)).runs).toMatchObject([{ from, people: 2 }])
    now = new Date(from)
    await drain(now)
    await seconds(3)
    expect(got().sort()).toEqual([one.e164, two.e164].sort())
  })

  it('spreads the rest over what is left of its days, and no longer', async () => {
    const leads = []
    for (let i = 0; i < 4; i++) leads.push(await makeLead(firm.ada))
    const id = await bulkOf(leads)
    await checked(id)
    await start(id, { days: 2 })
    await seconds(3)
    await turnBulk(firm.ada, id, 'pause', now)
    now = later(now, 86_400_000)
    await turnBulk(firm.ada, id, 'go-on', now)
    const { runs } = await readBulk(firm.ada, id)
    expect(Math.max(...runs!.map(run => run.from)) - now.getTime()).toBeLessThan(43_200_000)
    await turnBulk(firm.ada, id, 'stop', now)
  })

  it('does not make up for the time in which nothing ran', async () => {
    const many = await Promise.all(Array.from({ length: 12 }, () => makeLead(firm.ada)))
    const id = await bulkOf(many)
    await checked(id)
    await start(id)
    await drain(now)
    now = later(now, 3_600_000)
    await drain(now)
    await seconds(2)
    expect(got().length).toBeLessThanOrEqual(5)
    await seconds(14)
    expect(got().length).toBe(12)
  })

  it('keeps to the rate of its line together with another one that is under way', async () => {
    const two = () => Promise.all([makeLead(firm.ada), makeLead(firm.ada)])
    const [first, second] = [await bulkOf(await two()), await bulkOf(await two())]
    await checked(first)
    await checked(second)
    await start(first)
    await start(second)
    const runs = [...(await readBulk(firm.ada, first)).runs!, ...(await readBulk(firm.ada, second)).runs!]
    expect(runs.map(({ from }) => from - now.getTime())).toEqual([0, 2_000])
    await drain(now)
    await seconds(5)
    expect(got().length).toBe(4)
  })

  it('settles nothing that is owed, and buries no conversation', async () => {
    const [waits, fresh] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: waits.e164, to: firm.portland.e164, text: 'Is it still free' }, now)
    const id = await bulkOf([waits, fresh])
    await checked(id)
    await start(id)
    await seconds(4)
    expect(got().length).toBe(2)
    const { owed, others } = await readInbox(firm.ada, inboxQuery.cast({}))
    expect(owed.map(({ remote }) => remote)).toContain(waits.e164)
    expect(others.map(({ remote }) => remote)).not.toContain(fresh.e164)
    const sent = await readInbox(firm.ada, inboxQuery.cast({ show: 'sent' }))
    expect(sent.others.map(({ remote }) => remote)).toContain(fresh.e164)
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: fresh.e164, to: firm.portland.e164, text: 'Yes please' }, now)
    expect((await readInbox(firm.ada, inboxQuery.cast({}))).owed.map(({ remote }) => remote)).toContain(fresh.e164)
  })

  it('counts on a company nobody to whom it went not in the end, and nobody twice', async () => {
    const companyId = await makeThing(firm.ada, 'company', { name: 'Round the Corner Couriers' })
    const id = await bulkOf([await makeLead(firm.ada, { companyId }), await makeLead(firm.ada, { companyId })])
    const counted = async () => (await readTimeline(firm.ada, companyId)).entries.find(({ kind }) => kind === 'bulk-sent')?.data.people
    await checked(id)
    for (let i = 0; i < 40; i++) carrier.next({ kind: 'try-later', afterMs: 1_000, certain: true, code: 'carrier-unreachable' })
    await start(id)
    await seconds(4)
    expect(await counted()).toBe(2)
    await turnBulk(firm.ada, id, 'stop', now)
    expect(await counted()).toBe(0)
    carrier = fakeCarrier()
    await turnBulk(firm.ada, id, 'go-on', now)
    await seconds(6)
    expect([await counted(), got().length]).toEqual([2, 2])
  })

  it('stands once on a company, with how many of its people it went to', async () => {
    const companyId = await makeThing(firm.ada, 'company', { name: 'Holm & Daughters Bakery' })
    const three = await Promise.all(Array.from({ length: 3 }, () => makeLead(firm.ada, { companyId })))
    const id = await bulkOf(three)
    await checked(id)
    await start(id)
    await seconds(5)
    const { entries } = await readTimeline(firm.ada, companyId)
    expect(entries.filter(({ kind }) => kind === 'text-out')).toEqual([])
    expect(entries.filter(({ kind }) => kind === 'bulk-sent')).toEqual([expect.objectContaining({ words: 'Winter tyres', data: expect.objectContaining({ people: 3 }) })])
  })
})

describe('a rep', () => {
  it('starts no larger one than the house allows; their lead does, and it goes out in the rep’s name', async () => {
    const rules = await readHouseRules()
    await saveHouseRules(firm.rafe, { ...rules, bulkMost: 2 }, now)
    try {
      const three = await Promise.all(Array.from({ length: 3 }, () => makeLead(firm.ada)))
      const id = await bulkOf(three)
      await checked(id)
      await expect(start(id)).rejects.toMatchObject(problem(409, { type: 'needs-a-lead' }))
      expect(await readBulk(firm.ada, id)).toMatchObject({ state: 'checked', runs: null })
      // nor does it grow afterwards
      const { recordId } = three[0]!
      await takeOut(firm.ada, id, { recordId, lately: false, out: true }, now)
      await start(id, { start: now.getTime() + 60_000 })
      await expect(takeOut(firm.ada, id, { recordId, lately: false, out: false }, now)).rejects.toMatchObject(problem(409, { type: 'needs-a-lead' }))
      await takeOut(firm.odile, id, { recordId, lately: false, out: false }, now)
      now = later(now, 60_000)
      await drain(now)
      await seconds(4)
      expect(got().length).toBe(3)
      expect((await readTimeline(firm.ada, three[0]!.recordId)).entries[0]).toMatchObject({ colleague: { firstName: 'Ada' } })
    }
    finally {
      await saveHouseRules(firm.rafe, rules, now)
    }
  })
})

describe('the rate of a line', () => {
  it('is as its set-up says', async () => {
    await tx(database => database.update(line).set({ textsAMinute: 6, textsADay: 2 }).where(eq(line.id, firm.portland.id)))
    try {
      const three = await Promise.all(Array.from({ length: 3 }, () => makeLead(firm.ada)))
      const id = await bulkOf(three)
      await checked(id)
      await start(id)
      const { runs } = await readBulk(firm.ada, id)
      expect(runs!.map(({ everyMs, people }) => [everyMs, people])).toEqual([[10_000, 2], [10_000, 1]])
    }
    finally {
      await tx(database => database.update(line).set({ textsAMinute: 60, textsADay: null }).where(eq(line.id, firm.portland.id)))
    }
  })
})
