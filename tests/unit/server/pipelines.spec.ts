import { v7 as uuid } from 'uuid'
import { pipelineForm } from '~~/shared/schemas/pipeline'
import { viewForm } from '~~/shared/schemas/list'
import type { Held } from '~~/shared/modules'
import type { Stage } from '~~/shared/pipelines'
import { boardOfJob } from '~~/server/records/board'
import { listRecords } from '~~/server/records/list'
import { readRecord } from '~~/server/pages/record'
import { putOn } from '~~/server/records/people'
import { addPipeline, changePipeline, listPipelines, removePipeline } from '~~/server/records/pipeline-edit'
import { saveView } from '~~/server/records/views'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeThing, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

interface Wanted { name: string, id?: string, over?: boolean }
const form = (name: string, stages: Wanted[], holds: Held = 'deal', id = uuid()) =>
  pipelineForm.validateSync({ id, holds, name, stages: stages.map(stage => ({ id: uuid(), ...stage })) })
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const FLEETS: Wanted[] = [{ name: 'First word' }, { name: 'Trial week' }, { name: 'Signed', over: true }, { name: 'Lost', over: true }]
const SAME = uuid()

/** A pipeline of the stages above, and a stage of it by its name. */
async function fleets(name: string): Promise<{ id: string, stages: Stage[], stage: (name: string) => string }> {
  const { id, stages } = form(name, FLEETS)
  await addPipeline(firm.rafe, { id, holds: 'deal', name, stages }, DAY)
  return { id, stages, stage: one => stages.find(stage => stage.name === one)!.id }
}

describe('a pipeline', () => {
  it('is made by an admin, once, under a name of its own', async () => {
    const one = form('New fleets', FLEETS)
    await expect(addPipeline(firm.odile, one, DAY)).rejects.toMatchObject(problem(403))
    await addPipeline(firm.rafe, one, DAY)
    const all = await addPipeline(firm.rafe, one, DAY)
    expect(all.map(({ name }) => name)).toEqual(['Sales', 'New fleets'])
    await expect(addPipeline(firm.rafe, form('new FLEETS', FLEETS), DAY)).rejects.toMatchObject(
      problem(422, { fields: { name: expect.stringMatching(/already/) } }),
    )
  })

  it.each([
    [[{ name: 'Only one' }], /two stages/],
    [[{ name: 'Same' }, { name: 'same' }], /same name/],
    [[{ name: 'Won', over: true }, { name: 'Lost', over: true }], /not over/],
    [[{ name: '' }, { name: 'Lost' }], /name/],
    [[{ name: 'A', id: SAME }, { name: 'B', id: SAME }], /the same one/],
  ] as [Wanted[], RegExp][])('with the stages %j says what is wrong', (stages, reason) => {
    expect(() => form('Wrong', stages)).toThrow(reason)
  })

  it('moves nobody when a stage is renamed, though two change names with each other, nor anything that asks for it', async () => {
    const { id, stage } = await fleets('Swapped')
    const [first, signed] = [
      await makeThing(firm.ada, 'deal', { pipelineId: id }),
      await makeThing(firm.ada, 'deal', { pipelineId: id, stageId: stage('Signed') }),
    ]
    const where = JSON.stringify({ match: 'all', of: [{ field: 'stage', test: 'one-of', value: [stage('First word')] }] })
    const asked = { module: 'deal' as const, sort: 'stage', direction: 'up' as const, words: '', where, page: 1 }
    const before = await readRecord(firm.ada, first, DAY)
    await changePipeline(
      firm.rafe,
      id,
      form(
        'Swapped',
        [
          { name: 'Trial week', id: stage('First word') },
          { name: 'First word', id: stage('Trial week') },
          { name: 'Riding', id: stage('Signed') },
          { name: 'Lost', id: stage('Lost'), over: true },
        ],
        'deal',
        id,
      ),
      DAY,
    )
    expect(await readRecord(firm.ada, first, DAY)).toMatchObject({
      stage: { name: 'Trial week', over: false },
      version: before.version,
      stageSince: before.stageSince,
    })
    // no longer a stage in which it is over
    expect(await readRecord(firm.ada, signed, DAY)).toMatchObject({ stage: { name: 'Riding', over: false } })
    expect((await listRecords(firm.ada, asked, DAY)).rows).toMatchObject([{ id: first, stage: 'Trial week' }])
  })

  it('keeps a stage in which something stands, or which a list or a disposition asks for, and itself while it is used', async () => {
    const { id, stage } = await fleets('In use')
    const without = (gone: string) =>
      form(
        'In use',
        FLEETS.filter(({ name }) => name !== gone).map(one => ({ ...one, id: stage(one.name) })),
        'deal',
        id,
      )
    await makeThing(firm.ada, 'deal', { pipelineId: id, stageId: stage('Trial week') })
    await expect(changePipeline(firm.rafe, id, without('Trial week'), DAY)).rejects.toMatchObject(
      problem(422, { fields: { stages: expect.stringMatching(/1 still stands in “Trial week”/) } }),
    )
    await expect(removePipeline(firm.rafe, id, DAY)).rejects.toMatchObject(
      problem(409, { detail: expect.stringMatching(/1 deal is in “In use”/) }),
    )
    const where = JSON.stringify({ match: 'all', of: [{ field: 'stage', test: 'one-of', value: [stage('Signed')] }] })
    await saveView(
      firm.ada,
      viewForm.validateSync({ id: uuid(), module: 'deal', name: 'On trial', columns: ['name'], where, sort: 'name', direction: 'up' }),
      DAY,
    )
    await expect(changePipeline(firm.rafe, id, without('Signed'), DAY)).rejects.toMatchObject(
      problem(422, { fields: { stages: 'the list “On trial” asks for “Signed”. Take it out there first.' } }),
    )
    expect((await changePipeline(firm.rafe, id, without('Lost'), DAY)).find(one => one.id === id)!.stages.map(({ name }) => name)).toEqual([
      'First word',
      'Trial week',
      'Signed',
    ])
    const unused = await fleets('Not in use')
    expect((await removePipeline(firm.rafe, unused.id, DAY)).map(({ name }) => name)).not.toContain('Not in use')
  })

  it('takes no stage of another one', async () => {
    const [mine, other] = [await fleets('Mine'), await fleets('Other')]
    const taken = form(
      'Mine',
      [
        { name: 'First word', id: mine.stage('First word') },
        { name: 'Lost', id: other.stage('Lost') },
      ],
      'deal',
      mine.id,
    )
    await expect(changePipeline(firm.rafe, mine.id, taken, DAY)).rejects.toMatchObject(
      problem(422, { fields: { stages: expect.stringMatching(/stage of another pipeline/) } }),
    )
    expect((await listPipelines(firm.rafe, 'deal')).find(({ id }) => id === other.id)!.stages).toHaveLength(4)
  })

  it('of jobs holds their candidates, and stays while it is the only one', async () => {
    const [{ id: hiring, stages }] = await listPipelines(firm.rafe, 'applicant') as [Awaited<ReturnType<typeof listPipelines>>[number]]
    const job = await makeThing(firm.noor, 'job', { pipelineId: hiring })
    const rider = await makeThing(firm.noor, 'candidate', { firstName: 'Wren', lastName: 'Abara' })
    await putOn(firm.noor, job, rider, DAY)
    expect((await listPipelines(firm.rafe, 'applicant'))[0]).toMatchObject({
      records: 1,
      stages: [{ count: 1 }, ...stages.slice(1).map(() => ({ count: 0 }))],
    })
    await changePipeline(
      firm.rafe,
      hiring,
      form(
        'Hiring',
        stages.map((one, place) => ({ ...one, name: place === 0 ? 'Wrote to us' : one.name })),
        'applicant',
        hiring,
      ),
      DAY,
    )
    expect((await boardOfJob(firm.noor, job)).stages[0]).toMatchObject({ name: 'Wrote to us', count: 1 })
    await expect(removePipeline(firm.rafe, hiring, DAY)).rejects.toMatchObject(problem(409))
  })

  it('of leads is one, whose stages a firm makes its own', async () => {
    const [leads] = await listPipelines(firm.rafe, 'lead') as [Awaited<ReturnType<typeof listPipelines>>[number]]
    await expect(addPipeline(firm.rafe, form('More leads', FLEETS, 'lead'), DAY)).rejects.toMatchObject(problem(422))
    const own = [{ id: uuid(), name: 'Heard of us', over: false }, ...leads.stages]
    await changePipeline(firm.rafe, leads.id, form(leads.name, own, 'lead', leads.id), DAY)
    expect((await readRecord(firm.ada, await makeThing(firm.ada, 'lead', { firstName: 'Wren' }), DAY)).stage).toMatchObject({
      name: 'Heard of us',
    })
  })
})
