import { v7 as uuid } from 'uuid'
import { pipelineForm } from '~~/shared/schemas/pipeline'
import { viewForm } from '~~/shared/schemas/list'
import type { PipelineModule } from '~~/shared/modules'
import { boardOfJob } from '~~/server/records/board'
import { readRecord } from '~~/server/records/one'
import { putOn } from '~~/server/records/people'
import { addPipeline, changePipeline, listPipelines, removePipeline } from '~~/server/records/pipeline-edit'
import { listViews, saveView } from '~~/server/records/views'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeThing, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

interface Stage { name: string, was?: string, over?: boolean }
const form = (name: string, stages: Stage[], module: PipelineModule = 'deal', id = uuid()) => pipelineForm.validateSync({ id, module, name, stages })
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const FLEETS: Stage[] = [{ name: 'First word' }, { name: 'Trial week' }, { name: 'Signed', over: true }, { name: 'Lost', over: true }]
const same = (stages: Stage[]) => stages.map(stage => ({ ...stage, was: stage.name }))

async function fleets(name: string): Promise<string> {
  const one = form(name, FLEETS)
  await addPipeline(firm.rafe, one, DAY)
  return one.id
}

describe('a pipeline', () => {
  it('is made by an admin, once, under a name of its own', async () => {
    const one = form('New fleets', FLEETS)
    await expect(addPipeline(firm.odile, one, DAY)).rejects.toMatchObject(problem(403))
    await addPipeline(firm.rafe, one, DAY)
    const all = await addPipeline(firm.rafe, one, DAY)
    expect(all.map(({ name }) => name)).toEqual(['Sales', 'New fleets'])
    await expect(addPipeline(firm.rafe, form('new FLEETS', FLEETS), DAY)).rejects.toMatchObject(problem(422, { fields: { name: expect.stringMatching(/already/) } }))
  })

  it.each([
    [[{ name: 'Only one' }], /two stages/],
    [[{ name: 'Same' }, { name: 'same' }], /same name/],
    [[{ name: 'Won', over: true }, { name: 'Lost', over: true }], /not over/],
    [[{ name: '' }, { name: 'Lost' }], /name/],
    [[{ name: 'A', was: 'X' }, { name: 'B', was: 'X' }], /same one before/],
  ] as [Stage[], RegExp][])('with the stages %j says what is wrong', (stages, reason) => {
    expect(() => form('Wrong', stages)).toThrow(reason)
  })

  it('takes what stands in a stage along when the stage is renamed, though two change names with each other', async () => {
    const id = await fleets('Swapped')
    const [first, signed] = [await makeThing(firm.ada, 'deal', { pipelineId: id }), await makeThing(firm.ada, 'deal', { pipelineId: id, stage: 'Signed' })]
    await changePipeline(firm.rafe, id, form('Swapped', [{ name: 'Trial week', was: 'First word' }, { name: 'First word', was: 'Trial week' }, { name: 'Riding', was: 'Signed' }, ...same([{ name: 'Lost', over: true }])], 'deal', id), DAY)
    expect(await readRecord(firm.ada, first, DAY)).toMatchObject({ stage: 'Trial week', over: false })
    // no longer a stage in which it is over
    expect(await readRecord(firm.ada, signed, DAY)).toMatchObject({ stage: 'Riding', over: false })
  })

  it('lets kept lists ask for a stage by its new name', async () => {
    const id = await fleets('Asked for')
    await changePipeline(firm.rafe, id, form('Asked for', [{ name: 'First word', was: 'First word' }, { name: 'On trial week', was: 'Trial week' }, { name: 'Lost', was: 'Lost', over: true }], 'deal', id), DAY)
    const where = JSON.stringify({ match: 'all', of: [{ field: 'stage', test: 'one-of', value: ['On trial week'] }] })
    await saveView(firm.ada, viewForm.validateSync({ id: uuid(), module: 'deal', name: 'On trial', columns: ['name'], where, sort: 'name', direction: 'up' }), DAY)
    await changePipeline(firm.rafe, id, form('Asked for', [{ name: 'First word', was: 'First word' }, { name: 'Riding a week', was: 'On trial week' }, { name: 'Lost', was: 'Lost', over: true }], 'deal', id), DAY)
    expect((await listViews(firm.ada, 'deal')).find(one => one.name === 'On trial')!.conditions.of).toEqual([{ field: 'stage', test: 'one-of', value: ['Riding a week'] }])
  })

  it('keeps a stage in which something stands, and itself while it is used', async () => {
    const id = await fleets('In use')
    await makeThing(firm.ada, 'deal', { pipelineId: id, stage: 'Trial week' })
    const without = form('In use', same(FLEETS.filter(({ name }) => name !== 'Trial week')), 'deal', id)
    await expect(changePipeline(firm.rafe, id, without, DAY)).rejects.toMatchObject(problem(422, { fields: { stages: expect.stringMatching(/1 still stands in “Trial week”/) } }))
    await expect(removePipeline(firm.rafe, id, DAY)).rejects.toMatchObject(problem(409, { detail: expect.stringMatching(/1 deal is in “In use”/) }))
    const unused = await fleets('Not in use')
    expect((await removePipeline(firm.rafe, unused, DAY)).map(({ name }) => name)).not.toContain('Not in use')
  })

  it('of jobs moves their candidates, and stays while it is the only one', async () => {
    const [{ id: hiring, stages }] = await listPipelines(firm.rafe, 'job') as [Awaited<ReturnType<typeof listPipelines>>[number]]
    const job = await makeThing(firm.noor, 'job', { pipelineId: hiring })
    const rider = await makeThing(firm.noor, 'candidate', { firstName: 'Wren', lastName: 'Abara' })
    await putOn(firm.noor, job, rider, DAY)
    expect((await listPipelines(firm.rafe, 'job'))[0]).toMatchObject({ records: 1, stages: [{ count: 1 }, ...stages.slice(1).map(() => ({ count: 0 }))] })
    const named = form('Hiring', stages.map(({ name, over }, place) => ({ name: place === 0 ? 'Wrote to us' : name, was: name, over })), 'job', hiring)
    await changePipeline(firm.rafe, hiring, named, DAY)
    expect((await boardOfJob(firm.noor, job)).stages[0]).toMatchObject({ name: 'Wrote to us', count: 1 })
    await expect(removePipeline(firm.rafe, hiring, DAY)).rejects.toMatchObject(problem(409))
  })
})
