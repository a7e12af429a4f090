import { v7 as uuid } from 'uuid'
import { viewForm } from '~~/shared/schemas/list'
import { listColumns, listViews, removeView, saveView } from '~~/server/records/views'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const where = JSON.stringify({ match: 'all', of: [{ field: 'last-contact', test: 'not-for-days', value: 30 }] })
const form = (values: object = {}) =>
  viewForm.validateSync({
    id: uuid(),
    module: 'lead',
    name: 'Gone quiet',
    columns: ['name', 'phone'],
    where,
    sort: 'last-contact',
    direction: 'up',
    ...values,
  })
const names = async (who = firm.ada) => (await listViews(who, 'lead')).map(view => view.name)

describe('views', () => {
  it('are kept with columns, conditions and order, and changed under the same id', async () => {
    const mine = form()
    await saveView(firm.ada, mine, DAY)
    await saveView(firm.ada, { ...mine, name: 'Quiet for long' }, DAY)
    expect(await listViews(firm.ada, 'lead')).toEqual([
      expect.objectContaining({
        name: 'Quiet for long',
        columns: ['name', 'phone'],
        conditions: JSON.parse(where),
        sort: 'last-contact',
        direction: 'up',
        shared: false,
        mayEdit: true,
      }),
    ])
  })

  it('are seen by nobody else unless shared, and then by the team, which cannot change them', async () => {
    const shared = form({ name: 'For the team', shared: true })
    await saveView(firm.ada, shared, DAY)
    expect(await names(firm.mika)).toEqual(['For the team'])
    expect(await names(firm.noor)).toEqual([])
    expect(await names(firm.odile)).toEqual(['For the team'])
    await expect(saveView(firm.mika, shared, DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(removeView(firm.noor, shared.id)).rejects.toMatchObject({ details: { status: 404 } })
    await saveView(firm.odile, { ...shared, name: 'For all of us' }, DAY)
    expect(await names(firm.mika)).toEqual(['For all of us'])
    await removeView(firm.ada, shared.id)
    expect(await names(firm.mika)).toEqual([])
  })

  it('come mine first', async () => {
    await saveView(firm.mika, form({ name: 'A of Mika', shared: true }), DAY)
    await saveView(firm.ada, form({ name: 'Z of Ada' }), DAY)
    expect((await names()).slice(-2)).toEqual(['Z of Ada', 'A of Mika'])
  })

  it.each([
    [{ columns: ['salary'] }, 'columns'],
    [{ sort: 'salary' }, 'columns'],
    [{ where: '{' }, 'where'],
  ])('are refused with what is wrong: %j', async (values, field) => {
    await expect(saveView(firm.ada, form(values), DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { [field]: expect.any(String) } },
    })
  })
})

describe('the columns of a list', () => {
  it('offer stages, colleagues, and the tags of records that one may see', async () => {
    await makeLead(firm.ada, { tags: ['zest', 'Ähre', 'bakery'] })
    const choicesOf = async (who: Firm['ada'], key: string) =>
      (await listColumns(who, 'lead')).find(column => column.key === key)!.choices!.map(choice => choice.label)
    expect(await choicesOf(firm.mika, 'tags')).toEqual(['Ähre', 'bakery', 'zest'])
    expect(await choicesOf(firm.noor, 'tags')).toEqual([])
    expect(await choicesOf(firm.ada, 'stage')).toContain('Trial')
    expect(await choicesOf(firm.ada, 'owner')).toContain('Noor Farouk')
    expect((await listColumns(firm.ada, 'company')).map(column => column.key)).toContain('phone')
    expect((await listColumns(firm.ada, 'case')).map(column => column.key)).not.toContain('phone')
  })
})
