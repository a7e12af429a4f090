import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Papers } from '~~/core/papers/papers'
import type { CarrierEvent } from '~~/server/carriers/port'
import { carrierRegistered } from '~~/server/carriers/registry'
import { tx } from '~~/server/db/door'
import { audit, registration, registrationStep, template } from '~~/server/db/schema'
import { papersAsText } from '~~/server/papers/as-text'
import { readFront } from '~~/server/papers/front'
import { handIn, noteWord } from '~~/server/papers/hand-in'
import { heedPapers } from '~~/server/papers/told'
import { addFile, readFileOf, readPapers, removeFile, writePapers } from '~~/server/papers/written'
import { readSetUp } from '~~/server/pages/set-up'
import { handInForm, papersForm, papersWordForm } from '~~/shared/schemas/papers'
import { MOST_PAPER_FILES } from '~~/shared/papers'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
/** What the carrier was given, and whether it can be reached. */
const desk = { handed: [] as { country: string, papers: Papers, files: string[] }[], away: false }
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  fakeCarrier('by-hand')
  carrierRegistered('practice')!.papers = {
    async wants() {
      if (desk.away) throw new Error('away')
      return [{ country: 'US', leastDays: 7, mostDays: 15 }, { country: 'CA', leastDays: 4, mostDays: 10 }]
    },
    async handIn(country, papers, files) {
      if (desk.away) throw new Error('away')
      desk.handed.push({ country, papers, files: files.map(({ name }) => name) })
      return { ref: `case-${country}` }
    },
  }
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const SAMPLE = 'Hi [first name], Ada from Pannier & Post. When may I ring you this week?'
const papers = (more: object = {}) => ({
  firm: 'Pannier & Post Ltd', address: '4 Swan Quay', country: 'US', contact: 'Rafe', mail: 'Rafe@Pannier.example',
  about: 'Trial weeks', agree: 'A box on the form; STOP ends it.', samples: [SAMPLE, 'Your bike is ready. STOP ends these.'], ...more,
})
const write = async (more: object = {}, after?: number) =>
  writePapers(firm.rafe, papersForm.validateSync({ ...papers(more), after: after ?? (await readPapers()).version }), DAY)
const form = (more: object = {}) => handInForm.validateSync({ id: uuid(), carrier: 'practice', country: 'US', leastDays: 7, mostDays: 15, ...more })
const word = (more: object) => papersWordForm.validateSync({ words: '', ...more })
const told = (more: object): Extract<CarrierEvent, { kind: 'papers' }> =>
  ({ id: uuid(), at: later(DAY, 60_000), kind: 'papers', country: 'US', word: 'accepted', words: '', ...more })
const standing = async (country: string) => (await readFront(firm.rafe)).registrations.find(one => one.country === country)

describe('papers', () => {
  it('are written by and by, whole before they are handed in, and not over what somebody else has written', async () => {
    expect(await readFront(firm.rafe)).toMatchObject({ version: 0, registrations: [], drifting: [], missing: expect.arrayContaining(['firm']) })
    await write({ agree: '' })
    expect((await readFront(firm.rafe)).missing).toEqual(['agree'])
    await expect(handIn(firm.rafe, form(), DAY)).rejects.toMatchObject(problem(409, { type: 'papers-missing' }))
    await expect(write({}, 0)).rejects.toMatchObject(problem(409, { type: 'papers-changed' }))
    await write()
    expect(await readPapers()).toMatchObject({ version: 2, papers: { mail: 'rafe@pannier.example', samples: [SAMPLE, expect.any(String)] } })
    expect(papersAsText((await readPapers()).papers, [{ name: 'form.png' }])).toMatch(/^Company\nPannier & Post Ltd\n[^]*Sample text 2\nYour bike[^]*Files\nform.png/)
    for (const who of [firm.ada, firm.odile]) await expect(readFront(who)).rejects.toMatchObject(problem(403))
  })

  it('are taken by a carrier of that kind, and what it says of them counts once', async () => {
    const pdf = Buffer.from('%PDF-1.7 extract')
    await addFile(firm.rafe, uuid(), 'Extract.pdf', pdf, DAY)
    desk.away = true
    await expect(handIn(firm.rafe, form(), DAY)).rejects.toMatchObject(problem(409, { type: 'carrier-away' }))
    expect(await readFront(firm.rafe)).toMatchObject({ away: ['The carrier “practice”'], wanted: [] })
    desk.away = false
    expect((await readFront(firm.rafe)).wanted.map(({ country, lines }) => [country, lines])).toEqual([['US', expect.any(Number)], ['CA', expect.any(Number)]])
    await handIn(firm.rafe, form(), DAY)
    expect(desk.handed).toMatchObject([{ country: 'US', papers: { firm: 'Pannier & Post Ltd' }, files: ['Extract.pdf'] }])
    expect(await standing('US')).toMatchObject({ state: 'handed-in', ref: 'case-US', changedSince: false, byItself: true, steps: [{ by: 'Rafe Pennington' }] })
    // while they lie there they are not handed in once more, also not by two at once
    await expect(handIn(firm.rafe, form(), DAY)).rejects.toMatchObject(problem(409, { type: 'papers-lie-there' }))
    const asked = told({ word: 'asked-back', words: 'How do people agree?' })
    await heedPapers('practice', asked, DAY)
    await heedPapers('practice', asked, DAY)
    expect(await standing('US')).toMatchObject({ state: 'asked-back', steps: [{ kind: 'asked-back', by: null }, { kind: 'handed-in' }] })
    expect((await readSetUp(firm.rafe, DAY)).toDo.map(({ what }) => what)).toContain('1 carrier has sent papers back.')
    await write({ agree: 'A box on the form, empty at first; STOP ends it.' })
    expect(await standing('US')).toMatchObject({ changedSince: true })
    await handIn(firm.rafe, form(), later(DAY, 120_000))
    // what it had said of the first ones says nothing of these
    await heedPapers('practice', told({ word: 'accepted' }), DAY)
    expect(await standing('US')).toMatchObject({ state: 'handed-in' })
    await heedPapers('practice', told({ at: later(DAY, 180_000) }), DAY)
    expect(await standing('US')).toMatchObject({ state: 'accepted', changedSince: false })
    // of what is not written yet it has to be told again: its answer was quicker than ours
    expect(await heedPapers('practice', told({ country: 'GB' }), DAY)).toBe(false)
    const notes = await tx(database => database.select().from(audit).where(eq(audit.action, 'papers-answered')))
    expect(notes).toHaveLength(2)
  })

  it('are brought to others by hand, and their answers written down', async () => {
    await handIn(firm.rafe, form({ carrier: 'by-hand', country: 'CA', leastDays: 3, mostDays: 9 }), DAY)
    expect(desk.handed).toHaveLength(2)
    const { theirs } = await readSetUp(firm.rafe, DAY)
    expect(theirs).toContainEqual(expect.objectContaining({ what: expect.stringContaining('Canada'), since: DAY.getTime(), usual: { leastDays: 3, mostDays: 9 } }))
    const { id } = (await standing('CA'))!
    expect(() => word({ kind: 'asked-back' })).toThrow(/Write down what it asks/)
    await noteWord(firm.rafe, id, word({ kind: 'asked-back', words: 'Which website?', ref: 'T-77' }), DAY)
    expect(await standing('CA')).toMatchObject({ state: 'asked-back', ref: 'T-77', byItself: false, steps: [{ words: 'Which website?', by: 'Rafe Pennington' }, {}] })
    await noteWord(firm.rafe, id, word({ kind: 'accepted' }), DAY)
    await expect(noteWord(firm.rafe, (await standing('US'))!.id, word({ kind: 'accepted' }), DAY)).rejects.toMatchObject(problem(409))
    await expect(noteWord(firm.rafe, uuid(), word({ kind: 'accepted' }), DAY)).rejects.toMatchObject(problem(404))
    await expect(handIn(firm.rafe, form({ carrier: 'gone' }), DAY)).rejects.toMatchObject(problem(422))
    expect(() => form({ leastDays: 9, mostDays: 3 })).toThrow(/less than the least/)
  })

  it('point at templates that are unlike all that was handed in', async () => {
    const values = { modules: ['lead' as const], audience: 'all' as const, version: 1, changedAt: DAY, ownerId: firm.rafe.id }
    await tx(database => database.insert(template).values([
      { ...values, id: uuid(), name: 'Ring you', body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from Pannier & Post. When may I ring you today?' },
      { ...values, id: uuid(), name: 'Win', body: 'Last chance! Win a holiday with us, answer YES.' },
      { ...values, id: uuid(), name: 'Old', body: 'Last chance! Win again.', retiredAt: DAY },
    ]))
    const { drifting } = await readFront(firm.rafe)
    expect(drifting.map(({ name }) => name)).toEqual(['Win'])
    expect(drifting[0]!.nearest).toEqual(expect.any(String))
  })

  it('keep files that are what they say, and not too many', async () => {
    await expect(addFile(firm.rafe, uuid(), 'page.pdf', Buffer.from('<html>'), DAY)).rejects.toMatchObject(problem(422, { fields: { file: expect.stringContaining('page.pdf') } }))
    const id = uuid()
    const png = Buffer.from([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1])
    await addFile(firm.rafe, id, 'Form.png', png, DAY)
    await addFile(firm.rafe, id, 'Form.png', png, DAY)
    expect(await readFileOf(firm.rafe, id)).toMatchObject({ name: 'Form.png', type: 'image/png', bytes: png })
    await expect(readFileOf(firm.ada, id)).rejects.toMatchObject(problem(403))
    await removeFile(firm.rafe, id, DAY)
    await expect(readFileOf(firm.rafe, id)).rejects.toMatchObject(problem(404))
    for (let there = (await readFront(firm.rafe)).files.length; there < MOST_PAPER_FILES; there++) await addFile(firm.rafe, uuid(), `${there}.png`, png, DAY)
    await expect(addFile(firm.rafe, uuid(), 'one.png', png, DAY)).rejects.toMatchObject(problem(409))
  })

  it('lie with one carrier for one country once, whatever comes at the same time', async () => {
    await tx(async (database) => {
      await database.delete(registrationStep)
      await database.delete(registration)
    })
    const both = await Promise.allSettled([handIn(firm.rafe, form(), DAY), handIn(firm.rafe, form(), DAY)])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await readFront(firm.rafe)).registrations).toHaveLength(1)
  })
})
