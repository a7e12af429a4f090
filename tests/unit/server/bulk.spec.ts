import { v7 as uuid } from 'uuid'
import type { BulkChange } from '~~/shared/bulk'
import { bulkForm } from '~~/shared/schemas/list'
import { tx } from '~~/server/db/door'
import { record } from '~~/server/db/schema'
import { previewBulk, recentBulks, startBulk, stopBulk, takeBackBulk } from '~~/server/records/bulk'
import { readRecord } from '~~/server/pages/record'
import { changeRecord } from '~~/server/records/save'
import { readTimeline } from '~~/server/timeline/read'
import { editRecord } from '~~/shared/schemas/record'
import { useDatabase } from '../../support/database'
import { drain } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, stageOf, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const list = (values: object = {}) => ({ module: 'lead', sort: 'name', direction: 'up', words: '', where: '', ...values })
const form = (change: BulkChange, selection: object = {}) =>
  bulkForm.validateSync({ id: uuid(), change, selection: { list: list(), ids: null, ...selection } })
const leads = async (count: number, values: object = {}) =>
  Promise.all(Array.from({ length: count }, () => makeLead(firm.ada, values))).then(made => made.map(({ recordId }) => recordId))
const stages = async (ids: string[]) => Promise.all(ids.map(async id => (await readRecord(firm.odile, id, DAY)).stage?.name))
const now = async (id: string) => readRecord(firm.odile, id, DAY)

describe('a change of many records', () => {
  it('says before what it would do, then does just that, each with an entry of its own', async () => {
    const ids = await leads(3)
    await startBulk(firm.ada, form({ kind: 'stage', stageId: stageOf('Leads', 'Talking') }, { ids: [ids[0]] }), DAY)
    await drain(DAY)
    const change = form({ kind: 'stage', stageId: stageOf('Leads', 'Talking') }, { ids })
    expect(await previewBulk(firm.ada, change, DAY)).toEqual({ chosen: 3, changes: 2, alreadySo: 1, notAllowed: 0 })
    expect(await stages(ids)).toEqual(['Talking', 'New', 'New'])
    await startBulk(firm.ada, change, later(DAY, 1_000))
    await drain(later(DAY, 1_000))
    expect(await stages(ids)).toEqual(['Talking', 'Talking', 'Talking'])
    expect((await recentBulks(firm.ada, DAY)).find(one => one.id === change.id)).toMatchObject({
      state: 'done',
      total: 2,
      done: 2,
      changed: 2,
    })
    const { entries } = await readTimeline(firm.mika, ids[1]!)
    expect(entries[0]).toMatchObject({
      kind: 'stage-changed',
      data: { from: 'New', to: 'Talking', bulkId: change.id },
      colleague: { firstName: 'Ada' },
    })
  })

  it('is begun once however often it is sent', async () => {
    const ids = await leads(1)
    const change = form({ kind: 'add-tag', tag: 'north' }, { ids })
    await Promise.all([startBulk(firm.ada, change, DAY), startBulk(firm.ada, change, DAY)])
    await drain(DAY)
    expect(await now(ids[0]!)).toMatchObject({ tags: ['north'], version: 2 })
  })

  it('goes through all that the list holds, over many pieces, and nobody else', async () => {
    const teamId = firm.ada.teamIds[0]!
    const others = await leads(2, { city: 'Elsewhere' })
    await tx(database =>
      database
        .insert(record)
        .values(
          Array.from({ length: 250 }, (_, i) => ({
            id: uuid(),
            module: 'lead' as const,
            name: `Many ${i}`,
            city: 'Manyville',
            stageId: stageOf('Leads', 'New'),
            ownerId: firm.ada.id,
            teamId,
            madeAt: DAY,
          })),
        ),
    )
    const where = JSON.stringify({
      match: 'all',
      of: [
        { field: 'city', test: 'is', value: 'manyville' },
        { field: 'stage', test: 'one-of', value: [stageOf('Leads', 'New')] },
      ],
    })
    const change = form({ kind: 'stage', stageId: stageOf('Leads', 'Offer') }, { list: list({ where }) })
    expect(await previewBulk(firm.ada, change, DAY)).toMatchObject({ chosen: 250, changes: 250 })
    await startBulk(firm.ada, change, DAY)
    await drain(DAY)
    // the change itself made them match the list no more
    expect(await previewBulk(firm.ada, change, DAY)).toMatchObject({ chosen: 0 })
    expect((await recentBulks(firm.ada, DAY)).find(one => one.id === change.id)).toMatchObject({ state: 'done', changed: 250 })
    expect(await stages(others)).toEqual(['New', 'New'])
  })

  it('is for records that one may change only, whoever names them', async () => {
    const ids = await leads(1)
    const change = form({ kind: 'owner', ownerId: firm.noor.id }, { ids })
    expect(await previewBulk(firm.noor, change, DAY)).toEqual({ chosen: 0, changes: 0, alreadySo: 0, notAllowed: 0 })
    await startBulk(firm.noor, change, DAY)
    await drain(DAY)
    expect((await now(ids[0]!)).owner.name).toBe('Ada Lund')
    await expect(stopBulk(firm.ada, change.id, DAY)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it.each<[BulkChange, string]>([
    [{ kind: 'owner', ownerId: uuid() }, 'change.ownerId'],
    [{ kind: 'stage', stageId: stageOf('Candidates', 'Hired') }, 'change.stageId'],
  ])('says what cannot be: %j', async (change, field) => {
    await expect(previewBulk(firm.ada, form(change), DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { [field]: expect.any(String) } },
    })
  })
})

describe('taking a change of many back', () => {
  it.each<[string, (firm: Firm) => BulkChange]>([
    ['owner', ({ noor }) => ({ kind: 'owner', ownerId: noor.id })],
    ['stage', () => ({ kind: 'stage', stageId: stageOf('Leads', 'Leased') })],
    ['a tag more', () => ({ kind: 'add-tag', tag: 'spring' })],
    ['a tag less', () => ({ kind: 'remove-tag', tag: 'bakery' })],
  ])('gives back what was: %s', async (_, changeFor) => {
    const ids = await leads(2, { tags: ['bakery'], stageId: stageOf('Leads', 'Trial') })
    const shown = async () =>
      Promise.all(ids.map(async id => (({ owner, stage, tags }) => ({ owner: owner.name, stage, tags }))(await now(id))))
    const before = await shown()
    const change = form(changeFor(firm), { ids })
    await startBulk(firm.odile, change, DAY)
    await drain(DAY)
    expect(await shown()).not.toEqual(before)
    await takeBackBulk(firm.odile, change.id, later(DAY, 1_000))
    await drain(later(DAY, 1_000))
    expect(await shown()).toEqual(before)
    expect((await recentBulks(firm.odile, DAY)).find(one => one.id === change.id)).toMatchObject({ state: 'taken-back', changed: 2 })
    const { entries } = await readTimeline(firm.odile, ids[0]!)
    expect(entries.slice(0, 2).map(entry => entry.data.takenBack ?? false)).toEqual([true, false])
  })

  it('leaves alone what somebody has changed again since', async () => {
    const [id] = await leads(1)
    const change = form({ kind: 'stage', stageId: stageOf('Leads', 'Trial') }, { ids: [id] })
    await startBulk(firm.ada, change, DAY)
    await drain(DAY)
    const found = await readRecord(firm.mika, id!, DAY)
    await changeRecord(
      firm.mika,
      id!,
      editRecord.validateSync({
        ...found,
        phones: found.phones.map(({ id, label, typed }) => ({ id, label, typed })),
        stageId: stageOf('Leads', 'Offer'),
      }),
      DAY,
    )
    await takeBackBulk(firm.ada, change.id, later(DAY, 1_000))
    await drain(later(DAY, 1_000))
    expect((await now(id!)).stage?.name).toBe('Offer')
  })

  it('can be done after a stop in the middle, and not twice', async () => {
    const ids = await leads(2)
    const change = form({ kind: 'stage', stageId: stageOf('Leads', 'Trial') }, { ids })
    await startBulk(firm.ada, change, DAY)
    await stopBulk(firm.ada, change.id, DAY)
    await drain(DAY)
    expect(await stages(ids)).toEqual(['New', 'New'])
    await takeBackBulk(firm.ada, change.id, later(DAY, 1_000))
    await drain(later(DAY, 1_000))
    await expect(takeBackBulk(firm.ada, change.id, DAY)).rejects.toMatchObject({ details: { status: 409 } })
  })
})
