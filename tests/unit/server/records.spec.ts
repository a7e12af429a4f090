import { v7 as uuid } from 'uuid'
import { alikeQuery, editRecord, type EditRecord } from '~~/shared/schemas/record'
import { countRecords } from '~~/server/records/list'
import { addNote } from '~~/server/timeline/note'
import { readRecord } from '~~/server/pages/record'
import { readAlike } from '~~/server/records/alike'
import { addRecord, changeRecord } from '~~/server/records/save'
import { PAGE, readAround, readNewer, readTimeline } from '~~/server/timeline/read'
import { tx } from '~~/server/db/door'
import { customField } from '~~/server/db/schema'
import { look, whoElse } from '~~/server/live/presence'
import { useDatabase } from '../../support/database'
import { DAY, form, later, makeFirm, makeLead, stageOf, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database =>
    database
      .insert(customField)
      .values({ id: uuid(), module: 'lead', key: 'bikes', label: 'Bikes', kind: 'text', example: '2', position: 0 }),
  )
})

const edit = async (recordId: string, values: object): Promise<EditRecord> => {
  const now = await readRecord(firm.ada, recordId, DAY)
  return editRecord.validateSync({
    ...now,
    companyId: now.company?.id ?? null,
    phones: now.phones.map(({ id, label, typed }) => ({ id, label, typed })),
    ...values,
  })
}
const query = (values: object) => ({
  module: 'lead' as const,
  sort: 'name',
  direction: 'up' as const,
  words: '',
  where: '',
  page: 1,
  ...values,
})

describe('making a record', () => {
  it('cleans numbers, keeps what is none, and begins at the first stage', async () => {
    const { recordId } = await makeLead(firm.ada, {
      phones: [
        { label: 'mobile', typed: '(808) 555-0161' },
        { label: 'shop', typed: 'ask reception' },
      ],
    })
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({
      name: 'Iris Holm',
      stage: { name: 'New' },
      owner: { name: 'Ada Lund' },
      phones: [
        { e164: '+18085550161', country: 'US', unusable: null, zones: ['Pacific/Honolulu'] },
        { typed: 'ask reception', e164: null, unusable: 'not-a-number' },
      ],
    })
  })

  it('makes one record when the form is sent twice', async () => {
    const values = { ...form({ firstName: 'Twice' }), id: uuid(), module: 'lead' as const }
    expect(await addRecord(firm.ada, values, DAY)).toBe(await addRecord(firm.ada, values, DAY))
    expect((await countRecords(firm.ada, query({ words: 'twice' }), DAY)).total).toBe(1)
    await expect(addRecord(firm.mika, values, DAY)).rejects.toMatchObject({ details: { status: 409 } })
  })

  it.each([
    [{}, 'firstName'],
    [{ firstName: 'A', stageId: stageOf('Candidates', 'Hired') }, 'stageId'],
    [{ firstName: 'A', companyId: uuid() }, 'companyId'],
    [{ firstName: 'A', zone: 'Mars/Base' }, 'zone'],
  ])('says at the field what is wrong with %j', async (values, field) => {
    await expect(addRecord(firm.ada, { ...form(values), id: uuid(), module: 'lead' }, DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { [field]: expect.any(String) } },
    })
  })
})

describe('changing a record', () => {
  it('puts each field that changed on the timeline, from what to what, and the stage apart', async () => {
    const { recordId } = await makeLead(firm.ada)
    await changeRecord(
      firm.mika,
      recordId,
      await edit(recordId, { city: 'Hilo', stageId: stageOf('Leads', 'Trial'), fields: { bikes: '3', unknown: 'x' } }),
      later(DAY, 1_000),
    )
    const { entries } = await readTimeline(firm.ada, recordId)
    expect(entries).toContainEqual(
      expect.objectContaining({
        kind: 'stage-changed',
        data: { from: 'New', to: 'Trial' },
        colleague: expect.objectContaining({ firstName: 'Mika' }),
      }),
    )
    expect(entries.find(entry => entry.kind === 'fields-changed')!.data.changes).toEqual([
      { field: 'city', label: 'City', from: null, to: 'Hilo' },
      { field: 'bikes', label: 'Bikes', from: null, to: '3' },
    ])
  })

  it('tells a stale edit with both values, and takes nothing over', async () => {
    const { recordId } = await makeLead(firm.ada)
    const mine = await edit(recordId, { city: 'Hilo' })
    await changeRecord(firm.mika, recordId, await edit(recordId, { city: 'Kona' }), DAY)
    await expect(changeRecord(firm.ada, recordId, mine, DAY)).rejects.toMatchObject({
      details: { type: 'stale', version: 2, differences: [{ label: 'City', theirs: 'Kona', mine: 'Hilo' }] },
    })
    await changeRecord(firm.ada, recordId, { ...mine, version: 2 }, DAY)
    expect((await readRecord(firm.ada, recordId, DAY)).city).toBe('Hilo')
  })

  it('changes what was changed in the form, and nothing that others have changed meanwhile', async () => {
    const { recordId } = await makeLead(firm.ada)
    const opened = await edit(recordId, { city: 'Kona' })
    await changeRecord(firm.mika, recordId, await edit(recordId, { title: 'owner', fields: { bikes: '3' } }), DAY)
    await changeRecord(firm.ada, recordId, { ...opened, was: { city: null } }, DAY)
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({ city: 'Kona', title: 'owner', fields: { bikes: '3' } })
    // an own field that two change is told like any other, with what stands there now
    const late = { ...opened, fields: { bikes: '5' }, was: { fields: { bikes: null }, title: null }, title: 'owner' }
    await expect(changeRecord(firm.ada, recordId, late, DAY)).rejects.toMatchObject({
      details: { type: 'stale', was: { fields: { bikes: '3' } }, differences: [{ label: 'Bikes', theirs: '3', mine: '5' }] },
    })
    await changeRecord(firm.ada, recordId, { ...late, was: { ...late.was, fields: { bikes: '3' } } }, DAY)
    expect(await readRecord(firm.ada, recordId, DAY)).toMatchObject({ city: 'Kona', fields: { bikes: '5' } })
  })

  it('is for those who may', async () => {
    const { recordId } = await makeLead(firm.ada)
    await expect(changeRecord(firm.noor, recordId, await edit(recordId, {}), DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await expect(readTimeline(firm.noor, recordId)).rejects.toMatchObject({ details: { status: 404 } })
    await expect(readRecord(firm.rafe, recordId, DAY)).resolves.toMatchObject({ mayEdit: true })
  })
})

describe('a timeline', () => {
  it('is paged by what is on it, newest first, without gaps or repeats', async () => {
    const { recordId } = await makeLead(firm.ada)
    // several of one moment, so that time alone would not do
    for (let i = 0; i < PAGE + 20; i++)
      await addNote(firm.ada, recordId, { id: uuid(), words: `note ${i}` }, later(DAY, Math.floor(i / 7) * 1_000))
    const first = await readTimeline(firm.ada, recordId)
    const last = first.entries.at(-1)!
    const second = await readTimeline(firm.ada, recordId, { at: last.at, id: last.id })
    expect([first.more, second.more, second.entries.length]).toEqual([true, false, 21])
    const all = [...first.entries, ...second.entries]
    expect(new Set(all.map(entry => entry.id)).size).toBe(PAGE + 21)
    expect(all.map(entry => entry.at)).toEqual(all.map(entry => entry.at).sort((a, b) => b - a))
  })

  it('opens around an entry, from which one goes both ways without gaps', async () => {
    const { recordId } = await makeLead(firm.ada)
    for (let i = 0; i < 2 * PAGE - 1; i++) await addNote(firm.ada, recordId, { id: uuid(), words: `note ${i}` }, later(DAY, i * 1_000))
    const newest = await readTimeline(firm.ada, recordId)
    const all = [...newest.entries, ...(await readTimeline(firm.ada, recordId, newest.entries.at(-1))).entries]
    const sought = all.find(entry => entry.words === 'note 40')!
    const page = await readAround(firm.ada, recordId, sought.id)
    expect(page).toMatchObject({ more: false, newer: true })
    const above = await readNewer(firm.ada, recordId, page.entries[0]!)
    const top = await readNewer(firm.ada, recordId, above.entries[0]!)
    expect([above.newer, top.newer]).toEqual([true, false])
    expect([...top.entries, ...above.entries, ...page.entries].map(entry => entry.id)).toEqual(all.map(entry => entry.id))
    // one that is on another record, or for other eyes, opens the newest page
    expect(await readAround(firm.ada, recordId, uuid())).toEqual(newest)
    await expect(readAround(firm.noor, recordId, sought.id)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it('takes a note once, and shows markup as it is', async () => {
    const { recordId } = await makeLead(firm.ada)
    const note = { id: uuid(), words: '<b>bold</b> & {{ person.name }}' }
    await addNote(firm.ada, recordId, note, DAY)
    await addNote(firm.ada, recordId, note, DAY)
    expect((await readTimeline(firm.ada, recordId)).entries.filter(entry => entry.kind === 'note').map(entry => entry.words)).toEqual([
      note.words,
    ])
  })
})

describe('who is here', () => {
  it('says who else looks or writes, and forgets who has gone', () => {
    const recordId = uuid()
    const belongs = { ownerId: firm.ada.id, teamId: firm.ada.teamIds[0]! }
    look(firm.mika, { of: 'record', id: recordId }, belongs, 'writing', DAY)
    look(firm.ada, { of: 'record', id: recordId }, belongs, 'looking', DAY)
    expect(whoElse(firm.ada, { of: 'record', id: recordId }, DAY)).toEqual([{ colleagueId: firm.mika.id, firstName: 'Mika', writing: true }])
    expect(whoElse(firm.ada, { of: 'record', id: recordId }, later(DAY, 60_000))).toEqual([])
    look(firm.mika, { of: 'record', id: recordId }, belongs, 'gone', DAY)
    expect(whoElse(firm.ada, { of: 'record', id: recordId }, DAY)).toEqual([])
  })
})

describe('who may be the same', () => {
  const asks = (values: object) => alikeQuery.validateSync({ module: 'lead', ...values })

  it('is told by number, mail, or name and place, the strongest first, and never the record itself', async () => {
    const known = await makeLead(firm.ada, { firstName: 'Jorun', lastName: 'Vell', mail: 'jorun@post.example', city: 'Hilo' })
    const by = async (values: object) => (await readAlike(firm.ada, asks(values))).records.map(({ id, by }) => [id, by])
    expect(await by({ numbers: known.e164, mail: 'JORUN@post.example', name: 'jorun vell' })).toEqual([[known.recordId, 'number']])
    expect(await by({ mail: 'JORUN@post.example' })).toEqual([[known.recordId, 'mail']])
    expect([await by({ name: 'jorun vell', city: 'hilo' }), await by({ name: 'jorun vell', city: 'Kona' })]).toEqual([
      [[known.recordId, 'name']],
      [],
    ])
    expect(await by({ numbers: known.e164, except: known.recordId })).toEqual([])
  })

  it('says of what others have only whose team has the number, and of a name nothing', async () => {
    const theirs = await makeLead(firm.noor, { firstName: 'Hidden', lastName: 'Person', mail: 'hidden@post.example' })
    expect(await readAlike(firm.ada, asks({ numbers: theirs.e164, mail: 'hidden@post.example', name: 'Hidden Person' }))).toEqual({
      records: [],
      elsewhere: [{ number: theirs.e164, team: expect.stringMatching(/\w/) }],
    })
  })
})
