import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { DATED_MODULES, MATTER_MODULES, type Module } from '~~/shared/modules'
import type { Board } from '~~/shared/pipelines'
import { can } from '~~/shared/permissions'
import { addNote } from '~~/server/timeline/note'
import { boardOfDeals, boardOfJob } from '~~/server/records/board'
import { bulkForm } from '~~/shared/schemas/list'
import { editRecord } from '~~/shared/schemas/record'
import { startBulk, takeBackBulk } from '~~/server/records/bulk'
import { countRecords, listRecords } from '~~/server/records/list'
import { moveOnJob, moveRecord } from '~~/server/records/move'
import { recordsNamed } from '~~/server/records/named'
import { readRecord } from '~~/server/pages/record'
import { putOn, takeOff } from '~~/server/records/people'
import { changeRecord } from '~~/server/records/save'
import { readTimeline } from '~~/server/timeline/read'
import { showOnMatter } from '~~/server/timeline/show-on'
import { sendText } from '~~/server/texting/send'
import { startComposer } from '~~/server/texting/composer'
import { tx } from '~~/server/db/door'
import { record, recordPerson } from '~~/server/db/schema'
import { useDatabase } from '../../support/database'
import { drain } from '../../support/fake-carrier'
import { DAY, later, layPipeline, makeFirm, makeLead, makeThing, stageOf, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let renewals: string
beforeAll(async () => {
  firm = await makeFirm()
  renewals = await layPipeline(
    { holds: 'deal', name: 'Renewals', stages: ['Due', 'Offered', 'Renewed', 'Gone'], over: ['Renewed', 'Gone'] },
    5,
  )
})

const words = async (recordId: string) => (await readTimeline(firm.rafe, recordId)).entries.map(entry => entry.words).filter(Boolean)
const kinds = async (recordId: string) => (await readTimeline(firm.rafe, recordId)).entries.map(entry => entry.kind)
const note = (recordId: string, text: string, when = DAY) => addNote(firm.rafe, recordId, { id: uuid(), words: text }, when)
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })

describe('a record of another module', () => {
  it.each([
    ['deal', { name: '' }, { name: expect.stringMatching(/deal/) }],
    ['deal', { stageId: stageOf('Renewals', 'Due') }, { stageId: expect.stringMatching(/pipeline has no such stage/) }],
    ['deal', { pipelineId: uuid() }, { pipelineId: expect.any(String) }],
    ['deal', { fields: { value: 'a lot' } }, { 'fields.value': expect.any(String) }],
    ['deal', { fields: { currency: 'Thaler' } }, { 'fields.currency': expect.stringMatching(/USD/) }],
    ['job', { stageId: stageOf('Sales', 'Won') }, { stageId: expect.any(String) }],
    ['case', { phones: [{ label: 'desk', typed: '503 555 0101' }] }, { phones: expect.stringMatching(/no numbers/) }],
    ['appointment', {}, { 'fields.day': expect.stringMatching(/day/) }],
    ['payment', { fields: { day: '2026-02-30' } }, { 'fields.day': expect.any(String) }],
    ['case', { aboutId: uuid() }, { aboutId: expect.any(String) }],
    ['lead', { ownerId: uuid() }, { firstName: expect.any(String) }],
  ] as [Module, object, object][])('of %s says at the field what is wrong with %j', async (module, values, fields) => {
    await expect(makeThing(firm.ada, module, values)).rejects.toMatchObject(problem(422, { fields }))
  })

  it('of a deal begins in the first stage of the pipeline it was made in, and keeps value and currency', async () => {
    const id = await makeThing(firm.ada, 'deal', {
      pipelineId: renewals,
      fields: { value: '7,680', currency: 'usd' },
      ownerId: firm.mika.id,
      phones: [{ label: 'site', typed: '503 555 0177' }],
    })
    expect(await readRecord(firm.ada, id, DAY)).toMatchObject({
      stage: { name: 'Due', over: false },
      stages: ['Due', 'Offered', 'Renewed', 'Gone'].map(name => ({ name })),
      pipeline: { name: 'Renewals' },
      fields: { value: 7680, currency: 'USD' },
      owner: { firstName: 'Mika' },
      phones: [{ e164: '+15035550177', person: null }],
    })
  })

  it('of every module is listed, found by name and shown with its people', async () => {
    const { recordId } = await makeLead(firm.ada, { firstName: 'Petra', lastName: 'Quill' })
    for (const module of [...MATTER_MODULES, ...DATED_MODULES]) {
      const id = await makeThing(firm.ada, module, { name: `Quill’s ${module}`, fields: { day: '2026-12-03' } }, [recordId])
      const { rows } = await listRecords(firm.ada, { module, sort: 'people', direction: 'up', words: 'quill', where: '', page: 1 }, DAY)
      expect(rows).toEqual([expect.objectContaining({ id, name: `Quill’s ${module}`, people: 'Petra Quill' })])
    }
    expect((await readRecord(firm.ada, recordId, DAY)).related.map(({ module }) => module).sort()).toEqual(
      [...MATTER_MODULES, ...DATED_MODULES].sort(),
    )
    expect(await recordsNamed(firm.ada, MATTER_MODULES, 'quill’s c')).toEqual([
      expect.objectContaining({ name: 'Quill’s case', module: 'case' }),
    ])
    expect(await recordsNamed(firm.noor, MATTER_MODULES, 'quill')).toEqual([])
  })

  it('changes owner, pipeline and link with names on the timeline', async () => {
    const deal = await makeThing(firm.ada, 'deal', { name: 'Kite’s next year' })
    const id = await makeThing(firm.ada, 'agreement', { fields: { day: '2027-03-31' } })
    const now = await readRecord(firm.ada, id, DAY)
    await changeRecord(
      firm.ada,
      id,
      editRecord.validateSync({ ...now, aboutId: deal, ownerId: firm.mika.id, companyId: null, phones: [] }),
      DAY,
    )
    const { entries } = await readTimeline(firm.ada, id)
    expect(entries.find(entry => entry.kind === 'fields-changed')!.data.changes).toEqual([
      { field: 'owner', label: 'Owner', from: 'Ada Lund', to: 'Mika Sand' },
      { field: 'about', label: 'On', from: null, to: 'Kite’s next year' },
    ])
    expect((await readRecord(firm.ada, deal, DAY)).related).toEqual([expect.objectContaining({ id, day: '2027-03-31' })])
  })
})

describe('what happens with a person', () => {
  it('shows on the company and on the matters the person is on, while they are not over', async () => {
    const company = await makeThing(firm.ada, 'company')
    const { recordId, phoneId } = await makeLead(firm.ada, { companyId: company })
    const [deal, done, appointment] = [
      await makeThing(firm.ada, 'deal', {}, [recordId]),
      await makeThing(firm.ada, 'case', { stageId: stageOf('Cases', 'Settled') }, [recordId]),
      await makeThing(firm.ada, 'appointment', { fields: { day: '2026-12-03' } }, [recordId]),
    ]
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'Shall we ride?' }), DAY)
    await note(recordId, 'Likes hills.')
    expect(await words(company)).toEqual(expect.arrayContaining(['Shall we ride?', 'Likes hills.']))
    expect(await words(deal)).toEqual(expect.arrayContaining(['Shall we ride?', 'Likes hills.']))
    expect([await words(done), await words(appointment)]).toEqual([[], []])
    expect((await readTimeline(firm.ada, deal)).entries.find(entry => entry.words === 'Likes hills.')!.via).toEqual({
      id: recordId,
      name: 'Iris Holm',
    })
  })

  it('comes onto a matter later, when the person is put on it: what has happened since it was made', async () => {
    const { recordId } = await makeLead(firm.ada)
    await note(recordId, 'Long before.', later(DAY, -86_400_000))
    const deal = await makeThing(firm.ada, 'deal')
    for (let i = 0; i < 230; i++) await note(recordId, `note ${i}`, later(DAY, 1_000 + i))
    await putOn(firm.ada, deal, recordId, later(DAY, 2_000))
    await putOn(firm.mika, deal, recordId, later(DAY, 2_000))
    await drain(later(DAY, 3_000))
    const shown = await tx(database => database.query.activityOnRecord.findMany({ where: (table, { eq }) => eq(table.recordId, deal) }))
    // the notes, the making of both, and the putting on, once
    expect(shown).toHaveLength(230 + 3)
    expect(await kinds(deal)).toEqual(expect.arrayContaining(['put-on']))
    await takeOff(firm.ada, deal, recordId, later(DAY, 4_000))
    await note(recordId, 'Not for the deal.', later(DAY, 5_000))
    expect(await words(deal)).not.toContain('Not for the deal.')
    expect(await kinds(deal)).toContain('taken-off')
  })

  it('shows on the record a text was written from, over or not', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    const deal = await makeThing(firm.ada, 'deal', { stageId: stageOf('Sales', 'Won') }, [recordId])
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'How do they ride?', recordId: deal }), DAY)
    expect(await words(deal)).toContain('How do they ride?')
    expect((await startComposer(firm.ada, deal, DAY)).lastLine).not.toEqual({})
    const foreign = await makeThing(firm.noor, 'job')
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland, { recordId: foreign }), DAY)).rejects.toMatchObject(problem(404))
  })

  const one = (recordId: string) => ({ recordId, whole: false })

  it('shows a text that is linked to it later, once, with whom it came from', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'About the second trike.' }), DAY)
    const [entry] = (await readTimeline(firm.ada, recordId)).entries
    const deal = await makeThing(firm.ada, 'deal')
    await showOnMatter(firm.mika, entry!.id, one(deal), DAY)
    await showOnMatter(firm.mika, entry!.id, one(deal), DAY)
    expect((await readTimeline(firm.ada, deal)).entries.filter(({ words }) => words === 'About the second trike.')).toMatchObject([
      { via: { id: recordId, name: 'Iris Holm' } },
    ])
    await expect(showOnMatter(firm.ada, entry!.id, one(await makeThing(firm.ada, 'company')), DAY)).rejects.toMatchObject(problem(422))
    await expect(showOnMatter(firm.noor, entry!.id, one(await makeThing(firm.noor, 'job')), DAY)).rejects.toMatchObject(problem(404))
    await expect(showOnMatter(firm.noor, entry!.id, one(deal), DAY)).rejects.toMatchObject(problem(404))
  })

  it('shows the whole conversation that is linked to it, and of another line nothing', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    for (const text of ['First.', 'Second.']) await sendText(firm.ada, textTo(phoneId, firm.portland, { text }), DAY)
    await note(recordId, 'No text.', DAY)
    const entry = (await readTimeline(firm.ada, recordId)).entries.find(({ words }) => words === 'First.')!
    const deal = await makeThing(firm.ada, 'deal')
    await showOnMatter(firm.ada, entry.id, { recordId: deal, whole: true }, DAY)
    expect((await words(deal)).filter(text => text !== null).sort()).toEqual(['First.', 'Second.'])
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'Third.' }), later(DAY, 1_000))
    await showOnMatter(firm.ada, entry.id, { recordId: deal, whole: true }, later(DAY, 2_000))
    expect((await words(deal)).filter(text => text !== null).sort()).toEqual(['First.', 'Second.', 'Third.'])
  })

  it('takes a note on one of its entries, with the first words of it', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'Hi Iris, Ada here. '.repeat(8) }), DAY)
    const [entry] = (await readTimeline(firm.ada, recordId)).entries
    await addNote(firm.mika, recordId, { id: uuid(), words: 'Said on the phone too.', about: entry!.id }, later(DAY, 1_000))
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({
      kind: 'note',
      words: 'Said on the phone too.',
      data: { about: entry!.id, quote: expect.stringMatching(/^Hi Iris, Ada here.*…$/) },
    })
    // what went over a private line is not quoted to those who do not answer it
    await sendText(firm.ada, textTo(phoneId, firm.own, { text: 'Between us.' }), later(DAY, 2_000))
    const [secret] = (await readTimeline(firm.ada, recordId)).entries
    await addNote(firm.ada, recordId, { id: uuid(), words: 'Keep it so.', about: secret!.id }, later(DAY, 3_000))
    const notes = async (who: Firm['ada']) =>
      (await readTimeline(who, recordId)).entries.filter(({ kind }) => kind === 'note').map(({ words: said }) => said)
    expect([await notes(firm.ada), await notes(firm.mika)]).toEqual([['Keep it so.', 'Said on the phone too.'], ['Said on the phone too.']])
    const other = await makeLead(firm.ada)
    await expect(addNote(firm.ada, other.recordId, { id: uuid(), words: 'Elsewhere', about: entry!.id }, DAY)).rejects.toMatchObject(
      problem(404),
    )
  })

  it('keeps its hours by where the person is, not the deal', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    const deal = await makeThing(firm.ada, 'deal', { country: 'US', region: 'OR', zone: 'America/New_York' }, [recordId])
    // 9:00 in New York, 4:00 in Honolulu
    await expect(
      sendText(firm.ada, textTo(phoneId, firm.portland, { recordId: deal }), new Date('2026-11-25T14:00:00Z')),
    ).rejects.toMatchObject(problem(409, { type: 'night' }))
  })

  it('offers on a deal the numbers of its people, each named, after its own', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    const deal = await makeThing(firm.ada, 'deal', { phones: [{ label: 'site', typed: '503 555 0133' }] }, [recordId])
    expect((await readRecord(firm.ada, deal, DAY)).phones.map(phone => [phone.e164, phone.person?.name, phone.zones])).toEqual([
      ['+15035550133', undefined, expect.any(Array)],
      [e164, 'Iris Holm', ['Pacific/Honolulu']],
    ])
  })
})

describe('people on a record', () => {
  it('are people, on what takes people', async () => {
    const { recordId } = await makeLead(firm.ada)
    const [deal, company] = [await makeThing(firm.ada, 'deal'), await makeThing(firm.ada, 'company')]
    await expect(putOn(firm.ada, deal, company, DAY)).rejects.toMatchObject(problem(422))
    await expect(putOn(firm.ada, company, recordId, DAY)).rejects.toMatchObject(problem(422))
    await expect(putOn(firm.noor, deal, recordId, DAY)).rejects.toMatchObject(problem(404))
    await expect(putOn(firm.odile, deal, recordId, DAY)).resolves.toBeUndefined()
  })

  it('are named only to those who may see them', async () => {
    const { recordId } = await makeLead(firm.ada)
    const job = await makeThing(firm.noor, 'job', { name: 'Rider, secretly Iris' })
    await tx(database =>
      database.insert(recordPerson).values({ recordId: job, personId: recordId, stageId: stageOf('Hiring', 'Applied'), madeAt: DAY }),
    )
    const seen = async (asker: Firm['ada']) => {
      const { rows } = await listRecords(
        asker,
        { module: 'job', sort: 'people', direction: 'down', words: 'secretly', where: '', page: 1 },
        DAY,
      )
      return [(await readRecord(asker, job, DAY)).people.length, (await boardOfJob(asker, job)).stages[0]!.count, rows[0]!.people]
    }
    expect(await seen(firm.noor)).toEqual([0, 0, null])
    expect(await seen(firm.odile)).toEqual([1, 1, 'Iris Holm'])
    const where = JSON.stringify({ match: 'all', of: [{ field: 'people', test: 'contains', value: 'Iris' }] })
    expect((await countRecords(firm.noor, { module: 'job', sort: 'name', direction: 'up', words: '', where }, DAY)).total).toBe(0)
  })
})

describe('a pipeline', () => {
  it('of deals shows each stage with its count, its worth by currency, and its cards', async () => {
    const own = await layPipeline({ holds: 'deal', name: 'Fleets', stages: ['New', 'Offer', 'Won'], over: ['Won'] }, 9)
    const deal = (stage: string, value: number, currency: string, name = 'Bikes') =>
      makeThing(firm.ada, 'deal', { name, pipelineId: own, stageId: stageOf('Fleets', stage), fields: { value, currency } })
    const { recordId } = await makeLead(firm.ada)
    await deal('New', 100, 'USD')
    await deal('New', 50.5, 'USD')
    const waiting = await deal('New', 70, 'GBP', 'Asked first')
    await putOn(firm.ada, waiting, recordId, DAY)
    await deal('Won', 9, 'CAD')
    const board = await boardOfDeals(firm.mika, own, 'all', { [stageOf('Fleets', 'New')]: 2 })
    expect(board.stages.map(({ name, over, count, worth, cards }) => [name, over, count, worth, cards.length])).toEqual([
      ['New', false, 3, [{ currency: 'GBP', amount: 70 }, { currency: 'USD', amount: 150.5 }], 2],
      ['Offer', false, 0, [], 0],
      ['Won', true, 1, [{ currency: 'CAD', amount: 9 }], 1],
    ])
    expect((await boardOfDeals(firm.mika, own, 'mine')).stages.map(({ count }) => count)).toEqual([0, 0, 0])
    expect((await boardOfDeals(firm.noor, own, 'all')).stages.map(({ count }) => count)).toEqual([0, 0, 0])
  })

  it('moves a deal once, tells who moved it, and notices that somebody was first', async () => {
    const id = await makeThing(firm.ada, 'deal', { pipelineId: renewals })
    await moveRecord(firm.mika, id, { stageId: stageOf('Renewals', 'Renewed'), from: stageOf('Renewals', 'Due') }, later(DAY, 1_000))
    await moveRecord(firm.mika, id, { stageId: stageOf('Renewals', 'Renewed'), from: stageOf('Renewals', 'Due') }, later(DAY, 2_000))
    expect(await readRecord(firm.ada, id, DAY)).toMatchObject({ stage: { name: 'Renewed', over: true }, stageSince: DAY.getTime() + 1_000 })
    expect((await kinds(id)).filter(kind => kind === 'stage-changed')).toHaveLength(1)
    await expect(
      moveRecord(firm.ada, id, { stageId: stageOf('Renewals', 'Offered'), from: stageOf('Renewals', 'Due') }, DAY),
    ).rejects.toMatchObject(problem(409, { type: 'moved-meanwhile', detail: expect.stringMatching(/to Renewed/) }))
    await expect(moveRecord(firm.ada, id, { stageId: stageOf('Hiring', 'Hired'), from: null }, DAY)).rejects.toMatchObject(problem(422))
    await expect(moveRecord(firm.noor, id, { stageId: stageOf('Renewals', 'Due'), from: null }, DAY)).rejects.toMatchObject(problem(404))
  })

  it('of a job holds its candidates, who move in it without moving elsewhere', async () => {
    const { recordId } = await makeLead(firm.odile)
    const [job, other] = [await makeThing(firm.odile, 'job', {}, [recordId]), await makeThing(firm.odile, 'job', {}, [recordId])]
    const standing = (board: Board) => board.stages.filter(({ count }) => count > 0).map(({ name }) => name)
    await moveOnJob(firm.odile, job, recordId, { stageId: stageOf('Hiring', 'Trial shift'), from: stageOf('Hiring', 'Applied') }, DAY)
    expect([standing(await boardOfJob(firm.odile, job)), standing(await boardOfJob(firm.odile, other))]).toEqual([
      ['Trial shift'],
      ['Applied'],
    ])
    expect((await readRecord(firm.odile, recordId, DAY)).related.map(({ standing }) => standing).sort()).toEqual(['Applied', 'Trial shift'])
    for (const place of [job, recordId]) expect(await kinds(place)).toContain('moved-on')
    await expect(
      moveOnJob(firm.odile, job, recordId, { stageId: stageOf('Hiring', 'Offer'), from: stageOf('Hiring', 'Applied') }, DAY),
    ).rejects.toMatchObject(problem(409))
    await expect(moveOnJob(firm.odile, job, uuid(), { stageId: stageOf('Hiring', 'Offer'), from: null }, DAY)).rejects.toMatchObject(
      problem(404),
    )
  })

  it('of a job that is changed takes its candidates along, by the name of their stage or else to the first', async () => {
    const [met, lost] = [await makeLead(firm.odile), await makeLead(firm.odile)]
    const workshop = await layPipeline(
      { holds: 'applicant', name: 'Workshop', stages: ['Wrote', 'Trial shift', 'Hired'], over: ['Hired'] },
      8,
    )
    const job = await makeThing(firm.odile, 'job', { name: 'Mechanic' }, [met.recordId, lost.recordId])
    await moveOnJob(firm.odile, job, met.recordId, { stageId: stageOf('Hiring', 'Trial shift'), from: null }, DAY)
    const { version } = await readRecord(firm.odile, job, DAY)
    await changeRecord(firm.odile, job, editRecord.validateSync({ name: 'Mechanic', pipelineId: workshop, version }), DAY)
    expect((await boardOfJob(firm.odile, job)).stages.map(({ name, cards }) => [name, ...cards.map(({ id }) => id)])).toEqual([
      ['Wrote', lost.recordId],
      ['Trial shift', met.recordId],
      ['Hired'],
    ])
  })

  it('keeps deals among its own stages when many are moved at once, and gives them back', async () => {
    const ids = [
      await makeThing(firm.ada, 'deal', { name: 'many', pipelineId: renewals }),
      await makeThing(firm.ada, 'deal', { name: 'many' }),
    ]
    const bulk = bulkForm.validateSync({
      id: uuid(),
      selection: { list: { module: 'deal' }, ids },
      change: { kind: 'stage', stageId: stageOf('Renewals', 'Gone') },
    })
    await startBulk(firm.ada, bulk, DAY)
    await drain(later(DAY, 1_000))
    const states = async () => Promise.all(ids.map(async (id) => {
      const { stage } = await readRecord(firm.ada, id, DAY)
      return [stage?.name, stage?.over]
    }))
    expect(await states()).toEqual([['Gone', true], ['New', false]])
    await takeBackBulk(firm.ada, bulk.id, later(DAY, 2_000))
    await drain(later(DAY, 3_000))
    expect(await states()).toEqual([['Due', false], ['New', false]])
  })

  it('shows everybody what they may see and no more, whoever asks', async () => {
    const own = await layPipeline({ holds: 'deal', name: 'Whose', stages: ['New'] }, 10)
    const askers = [firm.ada, firm.mika, firm.noor, firm.odile, firm.rafe]
    await fc.assert(fc.asyncProperty(fc.array(fc.constantFrom(...askers.slice(0, 4)), { minLength: 1, maxLength: 4 }), async (owners) => {
      const ids = await Promise.all(owners.map(owner => makeThing(owner, 'deal', { pipelineId: own })))
      const stored = await tx(database => database.select().from(record))
      for (const asker of askers) {
        const cards = (await boardOfDeals(asker, own, 'all', { [stageOf('Whose', 'New')]: 2_000 })).stages[0]!.cards.map(({ id }) => id)
        const allowed = stored.filter(one => ids.includes(one.id) && can(asker, 'record.see', one)).map(({ id }) => id)
        expect(cards.filter(id => ids.includes(id)).sort()).toEqual(allowed.sort())
      }
    }), { numRuns: 8 })
  })
})
