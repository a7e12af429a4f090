import Papa from 'papaparse'
import { v7 as uuid } from 'uuid'
import type { DuplicateRules } from '~~/core/import/fate'
import { PIECE_ROWS, type ImportProgress } from '~~/shared/import'
import type { Module } from '~~/shared/modules'
import { importForm } from '~~/shared/schemas/import'
import { roundForm } from '~~/shared/schemas/round'
import { makeRound, previewRound } from '~~/server/calling/rounds/make'
import { beginImport, startImport, stopImport, takeImportBack, takeRows } from '~~/server/imports/begin'
import { lookUp } from '~~/server/imports/known'
import { progressOf, recentImports, refusedRows, rememberedMatching } from '~~/server/imports/progress'
import { markNotTheirs } from '~~/server/records/wrong-number'
import { receiveText } from '~~/server/texting/receive'
import { addNote } from '~~/server/timeline/note'
import { readRecord } from '~~/server/pages/record'
import { readTimeline } from '~~/server/timeline/read'
import { tx } from '~~/server/db/door'
import { audit, customField } from '~~/server/db/schema'
import type { SignedIn } from '~~/server/identity/sign-in'
import { useDatabase } from '../../support/database'
import { drain } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database =>
    database
      .insert(customField)
      .values({ id: uuid(), module: 'lead', key: 'trial_day', label: 'Trial starts', kind: 'date', example: '', position: 0 }),
  )
})

const HEADINGS = ['First', 'Last', 'Mobile', 'Mail', 'Company', 'City', 'Tags', 'Trial', 'Note']
const MATCHING = ['first-name', 'last-name', 'phone', 'mail', 'company', 'city', 'tags', 'own.trial_day', 'note']
const JOIN: DuplicateRules = { number: 'join', mail: 'join', name: 'join' }
let clock = 0
const next = () => later(DAY, clock += 1_000)

/** A row of which only these cells are filled. */
const cells = (values: Partial<Record<typeof HEADINGS[number], string>>) => HEADINGS.map(heading => values[heading] ?? '')

async function load(
  asker: SignedIn,
  rows: string[][],
  values: { module?: Module, duplicates?: DuplicateRules, ownerId?: string, matching?: (string | null)[], headings?: string[] } = {},
): Promise<string> {
  const { module = 'lead', duplicates = JOIN, ownerId = asker.id, matching = MATCHING, headings = HEADINGS } = values
  const form = importForm.validateSync({
    id: uuid(),
    module,
    fileName: 'fair.csv',
    headings,
    total: rows.length,
    rules: { matching, country: 'US', dayOrders: headings.map(() => null), duplicates, ownerId },
  })
  await beginImport(asker, form, next())
  for (let place = 0; place * PIECE_ROWS < rows.length; place += 3)
    await takeRows(asker, form.id, { place, rows: rows.slice(place * PIECE_ROWS, (place + 3) * PIECE_ROWS) })
  return form.id
}

async function bringIn(asker: SignedIn, rows: string[][], values: Parameters<typeof load>[2] = {}): Promise<ImportProgress> {
  const id = await load(asker, rows, values)
  await startImport(asker, id, next())
  await drain(next())
  return progressOf(asker, id)
}

const called = async (lastName: string) =>
  tx(database => database.query.record.findMany({ where: (table, { eq }) => eq(table.lastName, lastName) }))
const detail = async (lastName: string) => readRecord(firm.rafe, (await called(lastName))[0]!.id, DAY)
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })

describe('a file of rows', () => {
  it('becomes records with numbers, company, tags, fields, a note and an entry that says so', async () => {
    const progress = await bringIn(firm.ada, [
      cells({
        First: 'Fern',
        Last: 'Fairly',
        Mobile: '808 555 0150',
        Mail: 'fern@fair.example',
        Company: 'Fair & Co',
        City: 'Hilo',
        Tags: 'fair; north',
        Trial: '12/30/2026',
        Note: 'Met at the fair.',
      }),
      cells({ First: 'Finn', Last: 'Fairly', Company: 'fair & co', Mobile: 'ask at the desk' }),
    ])
    expect(progress).toMatchObject({ state: 'done', total: 2, done: 2, made: 2, joined: 0, refused: 0 })
    const [fern, finn] = (await called('Fairly')).sort((a, b) => a.name < b.name ? -1 : 1)
    expect(await readRecord(firm.ada, fern!.id, DAY)).toMatchObject({
      name: 'Fern Fairly',
      stage: { name: 'New' },
      owner: { name: 'Ada Lund' },
      company: { name: 'Fair & Co' },
      city: 'Hilo',
      tags: ['fair', 'north'],
      fields: { trial_day: '2026-12-30' },
      phones: [{ label: 'mobile', e164: '+18085550150', kind: 'mobile' }],
      version: 1,
    })
    expect(await readRecord(firm.ada, finn!.id, DAY)).toMatchObject({
      company: { id: fern!.companyId },
      phones: [{ typed: 'ask at the desk', unusable: 'not-a-number' }],
    })
    expect((await readTimeline(firm.ada, fern!.id)).entries.map(({ kind, words, data }) => [kind, words, data.importId]).sort()).toEqual([
      ['note', 'Met at the fair.', progress.id],
      ['record-made', null, progress.id],
    ])
    // the company is told once, not of each of its people
    expect((await readTimeline(firm.ada, fern!.companyId!)).entries.filter(({ kind }) => kind === 'record-made')).toHaveLength(1)
    expect(
      (await tx(database => database.select().from(audit))).some(({ action, details }) => action === 'imported' && details.count === 2),
    ).toBe(true)
  })

  it('can be called in a round by whoever brought it in: all that its rows became or were joined to', async () => {
    await makeLead(firm.ada, { firstName: 'There', lastName: 'Rounder' }, '808 555 9159')
    const progress = await bringIn(firm.ada, [
      cells({ First: 'New', Last: 'Rounder', Mobile: '808 555 9158' }),
      cells({ First: 'There', Last: 'Rounder', Mobile: '808 555 9159', City: 'Hilo' }),
    ])
    const form = roundForm.validateSync({
      id: uuid(),
      name: 'The fair',
      selection: { list: { module: 'lead', sort: 'name', direction: 'up' }, importId: progress.id },
    })
    expect(await previewRound(firm.ada, form, DAY)).toMatchObject({ chosen: 2 })
    await makeRound(firm.ada, form, DAY)
    const people = await tx(database => database.query.roundPerson.findMany({ where: (table, { eq }) => eq(table.roundId, form.id) }))
    expect(new Set(people.map(({ recordId }) => recordId))).toEqual(new Set((await called('Rounder')).map(({ id }) => id)))
    await expect(makeRound(firm.mika, { ...form, id: uuid() }, DAY)).rejects.toMatchObject(
      problem(422, { fields: { selection: expect.any(String) } }),
    )
  })

  it('makes nothing twice when it is brought in again, whatever the rules, and knows two alike in it', async () => {
    const rows = [
      cells({ First: 'Twin', Last: 'Twice' }),
      cells({ First: 'Twin', Last: 'Twice' }),
      cells({ First: 'Sole', Last: 'Twice', Mobile: '808 555 0151' }),
    ]
    const both: DuplicateRules = { number: 'keep-both', mail: 'keep-both', name: 'keep-both' }
    expect(await bringIn(firm.ada, rows, { duplicates: both })).toMatchObject({ made: 3, thereAlready: 0 })
    expect(await bringIn(firm.ada, rows, { duplicates: both })).toMatchObject({ made: 0, thereAlready: 3 })
    expect(await bringIn(firm.ada, [...rows, rows[0]!], { duplicates: both })).toMatchObject({ made: 1, thereAlready: 3 })
    expect(await called('Twice')).toHaveLength(4)
  })

  it('joins who is there by number, then by mail address, then by name: fills what is empty and writes nothing over', async () => {
    const { recordId } = await makeLead(
      firm.ada,
      { firstName: 'Jo', lastName: 'Joined', city: 'Kona', mail: 'jo@joined.example', tags: ['old'] },
      '808 555 0152',
    )
    const progress = await bringIn(firm.ada, [
      cells({ First: 'Other', Last: 'Name', Mobile: '(808) 555-0152', City: 'Hilo', Tags: 'new', Company: 'Joined & Co' }),
      cells({ First: 'Mailed', Mail: 'JO@joined.example', Mobile: '808 555 0153' }),
      cells({ First: 'Jo', Last: 'joined', Trial: '2026-12-31', Note: 'Again.' }),
    ])
    expect(progress).toMatchObject({ made: 0, joined: 3 })
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({
      name: 'Jo Joined', city: 'Kona', tags: ['old', 'new'], company: { name: 'Joined & Co' }, fields: { trial_day: '2026-12-31' },
      phones: [{ e164: '+18085550152' }, { e164: '+18085550153' }],
    })
    expect((await readTimeline(firm.ada, recordId)).entries.filter(({ kind }) => kind === 'fields-changed')).toHaveLength(3)
    // the company that came with it is no copy of the person
    const { company } = await readRecord(firm.ada, recordId, DAY)
    expect(await readRecord(firm.ada, company!.id, DAY)).toMatchObject({ module: 'company', city: null, mail: null, tags: [], stage: null })
  })

  it('brings no number back that was found to be somebody else’s', async () => {
    const { recordId, e164 } = await makeLead(firm.ada, { lastName: 'Misdialled', mail: 'misdialled@post.example' })
    await markNotTheirs(firm.ada, recordId, e164, next())
    await bringIn(firm.ada, [cells({ First: 'Iris', Last: 'Misdialled', Mobile: e164, Mail: 'misdialled@post.example', City: 'Hilo' })])
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({ city: 'Hilo', phones: [{ e164: null, unusable: 'not-theirs' }] })
  })

  it('keeps both, or leaves out, as it is told', async () => {
    await makeLead(firm.ada, { firstName: 'Lea', lastName: 'Leftout' }, '808 555 0154')
    const rows = [cells({ First: 'Lea', Last: 'Leftout', Mobile: '808 555 0154' })]
    expect(await bringIn(firm.ada, rows, { duplicates: { ...JOIN, number: 'leave-out' } })).toMatchObject({ leftOut: 1, made: 0 })
    expect(
      await bringIn(firm.ada, [cells({ First: 'Lea', Last: 'Leftout', Mobile: '808 555 0154', City: 'Hilo' })], {
        duplicates: { number: 'keep-both', mail: 'join', name: 'keep-both' },
      }),
    ).toMatchObject({ made: 1 })
    expect(await called('Leftout')).toHaveLength(2)
  })

  it('finds those of the same file too, in the same piece and in later ones', async () => {
    const filler = Array.from({ length: PIECE_ROWS }, (_, i) => cells({ First: `Filler ${i}`, Last: 'Filled' }))
    const progress = await bringIn(firm.ada, [
      cells({ First: 'Sam', Last: 'Samefile', Mobile: '808 555 0155' }),
      cells({ First: 'Sam', Last: 'Samefile', City: 'Hilo' }),
      ...filler,
      cells({ First: 'Samuel', Mobile: '808 555 0155', Mail: 'sam@same.example' }),
    ])
    expect(progress).toMatchObject({ made: PIECE_ROWS + 1, joined: 2 })
    expect(await detail('Samefile')).toMatchObject({ city: 'Hilo', mail: 'sam@same.example', phones: [{ e164: '+18085550155' }] })
  })

  it('refuses rows with reasons, and gives them back as a file that can be mended and read again', async () => {
    const bad = cells({ City: 'Kona', Note: '=1+1, "quoted"' })
    const progress = await bringIn(firm.ada, [bad, cells({ First: 'Rob', Last: 'Refused' }), cells({ City: 'Hilo' })])
    expect(progress).toMatchObject({ made: 1, refused: 2 })
    let file = ''
    for await (const line of refusedRows(firm.ada, progress.id)) file += line
    const { data } = Papa.parse<string[]>(file.replace(/^\uFEFF/, ''), { skipEmptyLines: true })
    expect(data[0]).toEqual([...HEADINGS, 'Why it was refused'])
    expect(data[1]).toEqual([...bad.slice(0, -1), '\'=1+1, "quoted"', expect.stringMatching(/There is no name/)])
    expect(data).toHaveLength(3)
    await expect((async () => {
      for await (const _ of refusedRows(firm.mika, progress.id));
    })()).rejects.toMatchObject(problem(404))
  })

  it('takes a row without the cells that cannot be read, and keeps their words in a note', async () => {
    const progress = await bringIn(firm.ada, [cells({ First: 'Pia', Last: 'Partly', Mail: 'nowhere', Trial: 'soon', Note: 'Met at the fair.' })])
    expect(progress).toMatchObject({ made: 1, refused: 0, partly: 1 })
    const { id, mail } = (await called('Partly'))[0]!
    expect(mail).toBeNull()
    expect((await readTimeline(firm.ada, id)).entries.map(({ words }) => words)).toContain('Met at the fair.\nMail: nowhere\nTrial: soon')
    // brought in once more it is known again
    expect(await bringIn(firm.ada, [cells({ First: 'Pia', Last: 'Partly', Mail: 'nowhere', Trial: 'soon', Note: 'Met at the fair.' })]))
      .toMatchObject({ thereAlready: 1 })
  })

  it('begins only when all of its rows are here, and each of them once', async () => {
    const rows = Array.from({ length: 250 }, (_, i) => cells({ First: `N${i}`, Last: 'Whole' }))
    const id = await load(firm.ada, rows.slice(0, 250))
    await takeRows(firm.ada, id, { place: 0, rows: rows.slice(0, 100) })
    await expect(takeRows(firm.ada, id, { place: 8, rows })).rejects.toMatchObject(problem(422))
    await expect(takeRows(firm.mika, id, { place: 0, rows: rows.slice(0, 100) })).rejects.toMatchObject(problem(404))
    await startImport(firm.ada, id, next())
    await startImport(firm.ada, id, next())
    await expect(takeRows(firm.ada, id, { place: 0, rows: rows.slice(0, 100) })).rejects.toMatchObject(problem(409))
    await drain(next())
    expect(await progressOf(firm.ada, id)).toMatchObject({ made: 250, done: 250 })

    const form = importForm.validateSync({
      id: uuid(),
      module: 'lead',
      fileName: 'half.csv',
      headings: HEADINGS,
      total: 300,
      rules: { matching: MATCHING, country: 'US', dayOrders: HEADINGS.map(() => null), duplicates: JOIN, ownerId: firm.ada.id },
    })
    await beginImport(firm.ada, form, next())
    await takeRows(firm.ada, form.id, { place: 0, rows: rows.slice(0, 100) })
    await expect(startImport(firm.ada, form.id, next())).rejects.toMatchObject(problem(409, { type: 'rows-missing' }))
  })

  it.each([
    [{ matching: ['first-name'] }, 'rules.matching'],
    [{ matching: MATCHING.map(() => 'submarine') }, 'rules.matching'],
    [{ matching: MATCHING.map(() => 'city') }, 'rules.matching'],
    [{ matching: MATCHING.map(() => null) }, 'rules.matching'],
    [{ ownerId: uuid() }, 'ownerId'],
  ])('with %j says what is wrong', async (values, field) => {
    await expect(load(firm.ada, [cells({})], values)).rejects.toMatchObject(problem(422, { fields: { [field]: expect.any(String) } }))
  })

  it('is for whom one may bring in: a rep for oneself, a lead for the team; an owner who cannot be one is left out, and said before', async () => {
    await expect(load(firm.ada, [cells({})], { ownerId: firm.mika.id })).rejects.toMatchObject(problem(403))
    const matching = ['owner', ...MATCHING.slice(1, 2)]
    const rows = [['Mika Sand', 'Owned'], ['noor@pannier.example', 'Owned'], ['Nobody', 'Owned']]
    expect(await bringIn(firm.ada, rows, { headings: ['Owner', 'Name'], matching })).toMatchObject({ made: 1, joined: 2, partly: 3 })
    expect((await called('Owned')).map(({ ownerId }) => ownerId)).toEqual([firm.ada.id])
    expect(await bringIn(firm.ada, rows, { headings: ['Owner', 'Name'], matching })).toMatchObject({ made: 0, joined: 0, thereAlready: 3 })
    const asked = { module: 'lead' as const, country: 'US', keys: [], numbers: [], mails: [], names: [], companies: [], owners: ['Mika Sand', 'Nobody', 'ada lund'] }
    expect((await lookUp(firm.ada, asked)).notOwners).toEqual({
      'Mika Sand': expect.stringMatching(/may not/),
      'Nobody': expect.stringMatching(/no colleague/),
    })
    expect(
      await bringIn(firm.odile, rows.map(([owner]) => [owner!, 'Owned by them']), {
        headings: ['Owner', 'Name'],
        matching,
        duplicates: { number: 'join', mail: 'join', name: 'keep-both' },
      }),
    ).toMatchObject({ made: 3, partly: 1 })
    expect((await called('Owned by them')).map(({ ownerId }) => ownerId).sort()).toEqual([firm.mika.id, firm.noor.id, firm.odile.id].sort())
  })

  it('knows nothing of records that may not be seen, and joins none that may not be changed', async () => {
    await makeLead(firm.noor, { firstName: 'Hidden', lastName: 'Hiddenly', mail: 'hidden@post.example' }, '808 555 0156')
    const found = await lookUp(firm.ada, {
      module: 'lead',
      country: 'US',
      numbers: ['+18085550156'],
      mails: ['hidden@post.example'],
      names: ['hidden hiddenly'],
      companies: [],
      keys: [],
    })
    expect(found).toMatchObject({ numbers: {}, mails: {}, names: {} })
    expect(await bringIn(firm.ada, [cells({ First: 'Hidden', Last: 'Hiddenly', Mobile: '808 555 0156' })])).toMatchObject({ made: 1 })
    expect(
      (
        await lookUp(firm.odile, {
          module: 'lead',
          country: 'US',
          numbers: ['+18085550156'],
          mails: ['HIDDEN@post.example'],
          names: ['Hidden  Hiddenly'],
          companies: [],
          keys: [],
        })
      ).mails,
    ).toEqual({ 'hidden@post.example': { id: expect.any(String), name: 'Hidden Hiddenly' } })
  })

  it('brings what was said before onto the record of the number', async () => {
    await receiveText(
      'practice',
      { kind: 'received', id: uuid(), ref: uuid(), from: '+18085550157', to: firm.portland.e164, text: 'Who is this?', at: DAY } as never,
      DAY,
    )
    await bringIn(firm.ada, [cells({ First: 'Spoke', Last: 'Before', Mobile: '808 555 0157' })])
    expect((await readTimeline(firm.ada, (await called('Before'))[0]!.id)).entries.map(({ words }) => words)).toContain('Who is this?')
  })

  it('is remembered by its headings', async () => {
    await load(firm.mika, [['a', 'b']], { headings: ['Nick-name', 'Shoe size'], matching: ['first-name', null] })
    expect(await rememberedMatching(firm.mika, 'lead')).toEqual({ nickname: 'first-name', shoesize: null })
    expect(await rememberedMatching(firm.odile, 'client')).toEqual({})
  })
})

describe('a column of opt-outs', () => {
  const headings = ['First', 'Last', 'Mobile', 'Opted out']
  const matching = ['first-name', 'last-name', 'phone', 'opted-out']
  const states = async () => Object.fromEntries((await detail('Quiet')).phones.map(({ e164, consent }) => [e164, consent.texts]))

  it('refuses texts to the number, of new people and of those who are there, once, and stays when the file is taken back', async () => {
    await makeLead(firm.ada, { lastName: 'Quiet', phones: [{ label: 'mobile', typed: '808 555 0191' }] })
    const rows = [
      ['Iris', 'Quiet', '808 555 0191', 'yes'],
      ['Orla', 'Loud', '808 555 0192', 'no'],
      ['Pim', 'Loud', '808 555 0193', ''],
      ['Quin', 'Unsure', '808 555 0194', 'perhaps'],
    ]
    const progress = await bringIn(firm.ada, rows, { headings, matching })
    expect(progress).toMatchObject({ made: 2, joined: 1, refused: 1 })
    expect(await states()).toEqual({ '+18085550191': 'refused' })
    expect((await called('Loud')).length).toBe(2)
    for (const { id } of await called('Loud'))
      expect((await readRecord(firm.ada, id, DAY)).phones.map(({ consent }) => consent.texts)).toEqual(['unknown'])
    await bringIn(firm.ada, rows, { headings, matching })
    const { id } = (await called('Quiet'))[0]!
    const told = (await readTimeline(firm.ada, id)).entries.filter(({ kind }) => kind === 'consent-changed')
    expect(told.map(({ words, data }) => [words, data.how])).toEqual([['Said so in the file fair.csv.', 'file']])
    await takeImportBack(firm.ada, progress.id, next())
    await drain(next())
    expect(await states()).toEqual({ '+18085550191': 'refused' })
  })
})

describe('taking a file back', () => {
  it('removes what it made and gives back what it added, but leaves what somebody has worked with since', async () => {
    const { recordId } = await makeLead(firm.ada, { firstName: 'Was', lastName: 'There', tags: ['old'] }, '808 555 0158')
    const rows = [
      ...Array.from({ length: 120 }, (_, i) => cells({ First: `Gone ${i}`, Last: 'Backed', Company: 'Backed & Co' })),
      cells({ First: 'Worked', Last: 'Backed', Mobile: '808 555 0159' }),
      cells({
        First: 'Was',
        Last: 'There',
        City: 'Hilo',
        Mobile: '808 555 0160',
        Tags: 'new',
        Mail: 'was@there.example',
        Company: 'Came along & Co',
      }),
    ]
    const { id } = await bringIn(firm.ada, rows)
    const worked = (await called('Backed')).find(({ firstName }) => firstName === 'Worked')!
    await addNote(firm.ada, worked.id, { id: uuid(), words: 'Called, will come.' }, next())
    await takeImportBack(firm.ada, id, next())
    await drain(next())
    expect(await progressOf(firm.ada, id)).toMatchObject({ state: 'taken-back', keptBack: 1 })
    expect((await called('Backed')).map(({ firstName }) => firstName)).toEqual(['Worked'])
    // what stays goes on telling where it came from
    expect((await readTimeline(firm.ada, worked.id)).entries.map(({ kind }) => kind).sort()).toEqual(['note', 'record-made'])
    expect(await tx(database => database.query.record.findMany({ where: (table, { eq }) => eq(table.name, 'Backed & Co') }))).toEqual([])
    expect(await tx(database => database.query.record.findMany({ where: (table, { eq }) => eq(table.name, 'Came along & Co') }))).toEqual(
      [],
    )
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({
      city: null,
      mail: null,
      company: null,
      tags: ['old'],
      phones: [{ e164: '+18085550158' }],
    })
    expect(await tx(database => database.query.importSeen.findMany({ where: (table, { eq }) => eq(table.importId, id) }))).toEqual([])
    // and it can be brought in anew
    expect(await bringIn(firm.ada, rows)).toMatchObject({ made: 120, thereAlready: 0 })
  })

  it('is for whoever brought it in, once it is over; a stopped one goes no further', async () => {
    const id = await load(firm.ada, Array.from({ length: 300 }, (_, i) => cells({ First: `S${i}`, Last: 'Stopped' })))
    await expect(takeImportBack(firm.ada, id, next())).rejects.toMatchObject(problem(409))
    await startImport(firm.ada, id, next())
    await expect(stopImport(firm.mika, id, next())).rejects.toMatchObject(problem(404))
    await stopImport(firm.ada, id, next())
    await drain(next())
    expect(await progressOf(firm.ada, id)).toMatchObject({ state: 'stopped', done: 0 })
    expect((await recentImports(firm.ada, 'lead', next())).map(one => one.id)).toContain(id)
    expect(await recentImports(firm.mika, 'lead', next())).toEqual([])
  })
})

describe('a file of deals, or of what has a day', () => {
  const named = async (name: string) =>
    (await tx(database => database.query.record.findMany({ where: (table, { eq }) => eq(table.name, name) })))[0]!

  it('becomes records in their pipelines, with their people on them, and is taken back with all of it', async () => {
    const { recordId: ada } = await makeLead(firm.ada, { firstName: 'Dilly', lastName: 'Dealer', mail: 'dilly@post.example' }, '808 555 0166')
    await makeLead(firm.noor, { firstName: 'Secret', lastName: 'Dealer' }, '808 555 0167')
    const headings = ['Deal', 'Value', 'Stage', 'People', 'Account']
    const matching = ['name', 'own.value', 'stage', 'people', 'company']
    const rows = [
      ['Five bikes', '$12,500.00', 'Offer', 'dilly@post.example', 'Dealer & Co'],
      ['Six bikes', '1.234,50', '', '(808) 555-0166; Secret Dealer', ''],
      ['', '3', '', '', ''],
    ]
    const file = { module: 'deal' as const, headings, matching }
    const progress = await bringIn(firm.ada, rows, file)
    expect(progress).toMatchObject({ state: 'done', made: 2, refused: 1, partly: 1 })
    const [five, six] = [await named('Five bikes'), await named('Six bikes')]
    expect(await readRecord(firm.ada, five.id, DAY)).toMatchObject({
      stage: { name: 'Offer' }, company: { name: 'Dealer & Co' }, fields: { value: 12_500 }, people: [{ id: ada }],
    })
    expect(five.pipelineId).not.toBeNull()
    expect(await readRecord(firm.ada, six.id, DAY)).toMatchObject({ fields: { value: 1234.5 }, people: [{ id: ada }] })
    expect((await readTimeline(firm.ada, six.id)).entries.map(({ kind, words }) => [kind, words])).toContainEqual(['note', 'People on it: Secret Dealer'])
    const onHer = async () => (await readTimeline(firm.ada, ada)).entries.filter(({ kind }) => kind === 'put-on').length
    expect(await onHer()).toBe(2)
    expect((await lookUp(firm.ada, { ...NOTHING, module: 'deal', people: ['Secret Dealer', '+1 808 555 0166'] })).notPeople).toEqual({
      'Secret Dealer': expect.stringContaining('nobody'),
    })
    expect(await bringIn(firm.ada, rows, file)).toMatchObject({ thereAlready: 2, made: 0 })
    await takeImportBack(firm.ada, progress.id, next())
    await drain(next())
    expect(await progressOf(firm.ada, progress.id)).toMatchObject({ state: 'taken-back', keptBack: 0 })
    expect([await named('Five bikes'), await onHer()]).toEqual([undefined, 0])
  })

  it('hangs on the deal, job or case that it names, adds to what is there by its name, and takes that back', async () => {
    await bringIn(firm.ada, [['Bells for all']], { module: 'deal', headings: ['Deal'], matching: ['name'] })
    const { recordId: ada } = await makeLead(firm.ada, { firstName: 'Meg', lastName: 'Meeter' }, '808 555 0168')
    const matching = ['name', 'own.day', 'about', 'people']
    const headings = ['What', 'Day', 'Deal', 'Who']
    await bringIn(firm.ada, [['Ride with bells', '', '', '']], { module: 'appointment', headings, matching })
    const rows = [['Ride with bells', '2026-12-30', 'bells for ALL', 'meg meeter'], ['Another ride', '2026-12-31', 'Horns for all', '']]
    const progress = await bringIn(firm.ada, rows, { module: 'appointment', headings, matching })
    expect(progress).toMatchObject({ made: 1, joined: 1, partly: 1 })
    const { id } = await named('Ride with bells')
    expect(await readRecord(firm.ada, id, DAY)).toMatchObject({
      about: { name: 'Bells for all' }, people: [{ id: ada }], fields: { day: '2026-12-30' },
    })
    await takeImportBack(firm.ada, progress.id, next())
    await drain(next())
    expect(await readRecord(firm.ada, id, DAY)).toMatchObject({ about: null, people: [], fields: {} })
  })
})

const NOTHING = { country: 'US', keys: [], numbers: [], mails: [], names: [], companies: [] }
