import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { makeBulk } from '~~/server/bulk/make'
import { changeColleague } from '~~/server/identity/people'
import { changeRight, changeRightOf, readRights } from '~~/server/identity/rights'
import { colleagueAtWork, signInAs, whoSignedIn } from '~~/server/identity/sign-in'
import { readRecord } from '~~/server/pages/record'
import { exportRecords } from '~~/server/records/export'
import { linesOf } from '~~/server/texting/lines'
import type { Changeable, Scope } from '~~/shared/permissions'
import { colleagueForm } from '~~/shared/schemas/people'
import { makeBulkForm } from '~~/shared/schemas/bulk-text'
import { exportQuery } from '~~/shared/schemas/list'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const ada = async () => (await colleagueAtWork(firm.ada.id))!
const give = (permission: Parameters<typeof changeRight>[1]['permission'], scope: Parameters<typeof changeRight>[1]['scope'], role: 'rep' | 'lead' = 'rep') =>
  changeRight(firm.rafe, { role, permission, scope }, DAY)

describe('a right', () => {
  it('is changed by admins for a role, with the next click, and noted', async () => {
    // of another team
    const { recordId } = await makeLead(firm.noor)
    const { signIn } = await signInAs(firm.ada.id, { address: '192.0.2.7' }, DAY)
    const opened = async () => readRecord((await whoSignedIn(signIn, DAY))!, recordId, DAY)
    await expect(opened()).rejects.toMatchObject(problem(404))
    const { table } = await give('record.see', 'all')
    expect(table.find(one => one.permission === 'record.see')).toEqual({ permission: 'record.see', rep: 'all', lead: 'people', usual: { rep: 'team', lead: 'people' } })
    expect(await opened()).toMatchObject({ id: recordId, mayEdit: false })
    await give('record.see', 'team')
    await expect(opened()).rejects.toMatchObject(problem(404))
    const notes = await tx(database => database.select().from(audit).where(eq(audit.action, 'right-changed')))
    expect(notes.map(({ details }) => details)).toEqual([
      { role: 'rep', permission: 'record.see', from: 'team', to: 'all' }, { role: 'rep', permission: 'record.see', from: 'all', to: 'team' },
    ])
    for (const who of [firm.ada, firm.odile]) {
      await expect(readRights(who)).rejects.toMatchObject(problem(403))
      await expect(changeRight(who, { role: 'rep', permission: 'record.see', scope: 'all' }, DAY)).rejects.toMatchObject(problem(403))
    }
  })

  it('is of no role but its own', async () => {
    await give('line.answer', 'none')
    expect(await linesOf(await ada())).toEqual([])
    expect((await linesOf((await colleagueAtWork(firm.odile.id))!)).length).toBeGreaterThan(0)
    await give('line.answer', 'team')
    expect((await linesOf(await ada())).length).toBeGreaterThan(0)
  })

  it('that is taken away is refused, with where to ask', async () => {
    await makeLead(firm.ada)
    await give('bulk.work', 'none')
    await give('record.export', 'none')
    const selection = { list: { module: 'lead', sort: 'made', direction: 'up' as const, words: '', where: '' } }
    await expect(makeBulk(await ada(), makeBulkForm.validateSync({ id: uuid(), name: 'Winter tyres', selection }), DAY))
      .rejects.toMatchObject(problem(403, { detail: expect.stringContaining('Ask an admin') }))
    const query = exportQuery.validateSync({ module: 'lead', sort: 'made', direction: 'up', columns: 'name', format: 'csv' })
    await expect(exportRecords(await ada(), query, DAY)).rejects.toMatchObject(problem(403))
    await give('bulk.work', 'own')
    await give('record.export', 'own')
    await makeBulk(await ada(), makeBulkForm.validateSync({ id: uuid(), name: 'Winter tyres', selection }), DAY)
  })

  it('never lets anybody change or take out what they do not see', async () => {
    await expect(give('record.edit', 'all')).rejects.toMatchObject(problem(422, { fields: { scope: expect.stringContaining('Widen') } }))
    await give('record.see', 'all')
    await give('record.edit', 'all')
    await expect(give('record.see', 'team')).rejects.toMatchObject(problem(422, { fields: { scope: expect.stringContaining('Narrow') } }))
    await give('record.edit', 'team')
    await give('record.see', 'team')
    await expect(give('record.see', 'none')).rejects.toMatchObject(problem(422))
  })
})

describe('a right of one colleague alone', () => {
  const giveAda = (permission: Changeable, scope: Scope | null, by = firm.rafe, colleagueId = firm.ada.id) =>
    changeRightOf(by, { colleagueId, permission, scope }, DAY)
  const mika = async () => (await colleagueAtWork(firm.mika.id))!

  it('comes before what all in the role may do, for them and nobody else, until it is taken back', async () => {
    const { recordId } = await makeLead(firm.noor)
    const { people } = await giveAda('record.see', 'all')
    expect(people).toEqual([
      { colleagueId: firm.ada.id, name: firm.ada.name, role: 'rep', permission: 'record.see', scope: 'all', usual: 'team' },
    ])
    expect(await readRecord(await ada(), recordId, DAY)).toMatchObject({ id: recordId })
    await expect(readRecord(await mika(), recordId, DAY)).rejects.toMatchObject(problem(404))
    // what is said of all meanwhile leaves it as it is
    await give('record.see', 'people')
    expect(await readRecord(await ada(), recordId, DAY)).toMatchObject({ id: recordId })
    await give('record.see', 'team')
    expect((await giveAda('record.see', null)).people).toEqual([])
    await expect(readRecord(await ada(), recordId, DAY)).rejects.toMatchObject(problem(404))
    const notes = await tx(database => database.select().from(audit).where(eq(audit.action, 'right-changed')))
    expect(notes.map(({ details }) => details)).toContainEqual({ colleagueId: firm.ada.id, permission: 'record.see', from: 'team', to: 'all' })
  })

  it('never lets them change what they do not see, by way of the role either', async () => {
    await expect(giveAda('record.edit', 'all')).rejects.toMatchObject(problem(422, { fields: { scope: expect.stringContaining('Widen') } }))
    await give('record.see', 'all')
    await giveAda('record.edit', 'all')
    await expect(give('record.see', 'team')).rejects.toMatchObject(problem(422, { fields: { scope: expect.stringContaining(firm.ada.name) } }))
    await giveAda('record.edit', null)
    await give('record.see', 'team')
  })

  it('is of reps and leads, and ends when they become something else or leave', async () => {
    await expect(giveAda('record.see', 'own', firm.rafe, firm.rafe.id)).rejects.toMatchObject(problem(422))
    await expect(giveAda('bulk.work', 'all', firm.odile)).rejects.toMatchObject(problem(403))
    await giveAda('bulk.work', 'all')
    const { name, mail, title, teamIds } = firm.ada
    const as = (role: string) =>
      changeColleague(firm.rafe, firm.ada.id, colleagueForm.validateSync({ name, mail, title, teamIds, role }), DAY)
    await as('lead')
    expect((await readRights(firm.rafe)).people).toEqual([])
    await as('rep')
    expect((await ada()).rights?.['bulk.work']).not.toBe('all')
  })
})
