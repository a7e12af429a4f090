import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import type { Condition, Conditions } from '~~/core/conditions/conditions'
import { makeBulk, writeBulk } from '~~/server/bulk/make'
import { startCheck } from '~~/server/bulk/check'
import { readGroupFeed } from '~~/server/bulk/group-feed'
import { startBulk as startBulkText } from '~~/server/bulk/run'
import { readBulk } from '~~/server/bulk/read'
import { makeRound } from '~~/server/calling/rounds/make'
import { tx } from '~~/server/db/door'
import { audit, customField, record } from '~~/server/db/schema'
import { readRecord } from '~~/server/pages/record'
import { previewBulk, startBulk, takeBackBulk } from '~~/server/records/bulk'
import { exportRecords } from '~~/server/records/export'
import { listGroups, readGroup, removeGroup, saveGroup } from '~~/server/records/groups/edit'
import { putInGroup } from '~~/server/records/groups/members'
import { countGroups, listGroupPeople } from '~~/server/records/groups/people'
import { countRecords, listRecords } from '~~/server/records/list'
import { listColumns } from '~~/server/records/views'
import { setOwnField } from '~~/server/records/set-field'
import { tagRecord } from '~~/server/records/tag'
import { usersOf } from '~~/server/records/field-uses'
import { takeEvent } from '~~/server/texting/events'
import { readTimeline } from '~~/server/timeline/read'
import { makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { groupForm } from '~~/shared/schemas/group'
import { bulkForm, exportQuery } from '~~/shared/schemas/list'
import { roundForm } from '~~/shared/schemas/round'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, makeThing, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database => database.insert(customField).values([
    { id: uuid(), module: 'lead', key: 'branch', label: 'Branch', kind: 'choice', example: 'Halifax', options: ['Halifax', 'Portland'], position: 0 },
    { id: uuid(), module: 'lead', key: 'trike', label: 'Wants a trike', kind: 'yes-no', example: 'yes', position: 1 },
  ]))
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
let names = 0
const where = (...of: Conditions['of']) => JSON.stringify({ match: 'all', of } satisfies Conditions)
const is = (field: string, ...value: string[]): Condition => ({ field, test: 'one-of', value })
async function group(values: object = {}, who = firm.ada): Promise<string> {
  const id = uuid()
  await saveGroup(who, groupForm.validateSync({ id, name: `Demonstration ${names++}`, ...values }), DAY)
  return id
}
const peopleOf = async (id: string, who = firm.ada) => {
  const { rows, total } = await listGroupPeople(who, id, { words: '', page: 1 }, DAY)
  expect(total).toBe(rows.length)
  return rows.map(one => one.id)
}
const ids = (...leads: { recordId: string }[]) => leads.map(({ recordId }) => recordId)
const same = (found: string[], wanted: string[]) => expect([...found].sort()).toEqual([...wanted].sort())
const listed = (conditions: string, values: object = {}) =>
  ({ module: 'lead' as const, sort: 'name', direction: 'up' as const, words: '', page: 1, where: conditions, ...values })
const into = (lead: { recordId: string }, id: string, isIn = true, who = firm.ada) => putInGroup(who, lead.recordId, id, isIn, DAY)
const newestOf = async (recordId: string) => (await readTimeline(firm.ada, recordId)).entries[0]!

describe('a group by hand', () => {
  it('holds whom colleagues have put into it, says so on their timelines, and on their pages', async () => {
    const [one, two, id] = [await makeLead(firm.ada), await makeLead(firm.ada), await group({ name: 'Hill riders' })]
    expect([await into(one, id), await into(one, id), await into(two, id, true, firm.mika)]).toEqual([true, false, true])
    same(await peopleOf(id), ids(one, two))
    expect(await newestOf(one.recordId)).toMatchObject({ kind: 'group-changed', data: { to: 'Hill riders', groupId: id } })
    expect((await readRecord(firm.ada, one.recordId, DAY)).groups).toEqual([{ id, name: 'Hill riders', way: 'hand' }])
    expect([await into(one, id, false), await into(one, id, false)]).toEqual([true, false])
    expect(await newestOf(one.recordId)).toMatchObject({ kind: 'group-changed', data: { from: 'Hill riders' } })
    expect(await peopleOf(id)).toEqual([two.recordId])
  })

  it('shows everybody only those whom they may see, and is everybody’s', async () => {
    const [mine, hers, id] = [await makeLead(firm.ada), await makeLead(firm.noor), await group()]
    await into(mine, id)
    await into(hers, id, true, firm.noor)
    expect([await peopleOf(id), await peopleOf(id, firm.noor)]).toEqual([[mine.recordId], [hers.recordId]])
    expect([(await countGroups(firm.ada, DAY))[id], (await countGroups(firm.rafe, DAY))[id]]).toEqual([1, 2])
    await expect(into(hers, id)).rejects.toMatchObject(problem(404))
    expect((await listGroups(firm.noor)).find(one => one.id === id)).toMatchObject({ mayEdit: false, madeBy: { firstName: 'Ada' } })
  })

  it('is changed and removed by its maker or a lead, has a name of its own, and stays what it is', async () => {
    const id = await group({ name: 'Flower people' })
    await expect(group({ name: 'flower PEOPLE' })).rejects.toMatchObject(problem(422, { fields: { name: expect.stringContaining('of this name') } }))
    const rename = (who: typeof firm.ada, values: object = {}) => saveGroup(who, groupForm.validateSync({ id, name: 'Florists', ...values }), DAY)
    await expect(rename(firm.mika)).rejects.toMatchObject(problem(403))
    await expect(rename(firm.ada, { module: 'lead', where: where(is('tags', 'florist')) })).rejects.toMatchObject(problem(409))
    expect(await rename(firm.odile)).toMatchObject({ id, name: 'Florists', way: 'hand' })
    await expect(removeGroup(firm.noor, id, DAY)).rejects.toMatchObject(problem(403))
    await removeGroup(firm.ada, id, DAY)
    await expect(readGroup(firm.ada, id)).rejects.toMatchObject(problem(404))
    const noted = await tx(database => database.select().from(audit).where(eq(audit.colleagueId, firm.odile.id)))
    expect(noted.map(({ action }) => action)).toContain('group-changed')
    expect(() => groupForm.validateSync({ id, name: ' ' })).toThrow('Give the group a name.')
  })
})

describe('a group by a rule', () => {
  it('holds whoever it asks for, without anybody doing anything', async () => {
    const lead = await makeLead(firm.ada, { city: 'Kona' })
    const id = await group({ module: 'lead', where: where({ field: 'city', test: 'is', value: 'Kona' }) })
    expect(await peopleOf(id)).toEqual([lead.recordId])
    expect((await readRecord(firm.ada, lead.recordId, DAY)).groups).toMatchObject([{ id, way: 'rule' }])
    await tx(database => database.update(record).set({ city: 'Hilo' }).where(eq(record.id, lead.recordId)))
    expect([await peopleOf(id), (await readRecord(firm.ada, lead.recordId, DAY)).groups]).toEqual([[], []])
    await expect(into(lead, id)).rejects.toMatchObject(problem(409, { type: 'by-rule' }))
  })

  it('asks for something, and for no other rule', async () => {
    const [byHand, byRule] = [await group(), await group({ module: 'lead', where: where({ field: 'city', test: 'is', value: 'Hana' }) })]
    const asking = (...of: Conditions['of']) => group({ module: 'lead', where: where(...of) })
    for (const wrong of [[], [is('groups', byRule)], [{ match: 'any', of: [is('groups', byHand, byRule)] }], [{ field: 'groups', test: 'empty' }]])
      await expect(asking(...(wrong as Conditions['of']))).rejects.toMatchObject(problem(422, { fields: { where: expect.stringContaining('rule') } }))
    await expect(asking({ field: 'nothing', test: 'filled' })).rejects.toMatchObject(problem(422))
    const lead = await makeLead(firm.ada)
    await into(lead, byHand)
    expect(await peopleOf(await asking(is('groups', byHand)))).toEqual([lead.recordId])
  })

  it('holds for nobody, and says why, where it asks for a field that is gone', async () => {
    const field = uuid()
    await tx(database => database.insert(customField).values(
      { id: field, module: 'lead', key: 'wheels', label: 'Wheels', kind: 'number', example: '3', position: 2 }))
    const id = await group({ name: 'Three wheels', module: 'lead', where: where({ field: 'own.wheels', test: 'is', value: 3 }) })
    const lead = await makeLead(firm.ada, { fields: { wheels: 3 } })
    expect(await peopleOf(id)).toEqual([lead.recordId])
    const [stored] = await tx(database => database.select().from(customField).where(eq(customField.id, field)))
    expect(await usersOf(stored!)).toEqual(['the group “Three wheels”'])
    await tx(database => database.delete(customField).where(eq(customField.id, field)))
    await expect(peopleOf(id)).rejects.toMatchObject(problem(409, { type: 'rule-broken' }))
    expect((await countGroups(firm.ada, DAY))[id]).toBeNull()
    expect((await readRecord(firm.ada, lead.recordId, DAY)).groups).toEqual([])
    expect(await countRecords(firm.ada, listed(where(is('groups', id))), DAY)).toEqual({ total: 0 })
    await removeGroup(firm.ada, id, DAY)
  })
})

describe('a group by a field', () => {
  it('gives whoever is put into it the field, takes it from whoever is taken out, and follows the field', async () => {
    const lead = await makeLead(firm.ada)
    const [halifax, trikes, florists] = [
      await group({ module: 'lead', where: where(is('own.branch', 'Halifax')) }),
      await group({ module: 'lead', where: where({ field: 'own.trike', test: 'yes' }) }),
      await group({ module: 'lead', where: where(is('tags', 'florist')) }),
    ]
    for (const id of [halifax, trikes, florists]) expect([await into(lead, id), await into(lead, id)]).toEqual([true, false])
    const shown = await readRecord(firm.ada, lead.recordId, DAY)
    expect([shown.fields, shown.tags, shown.groups.map(({ way }) => way)]).toEqual([{ branch: 'Halifax', trike: true }, ['florist'], ['field', 'field', 'field']])
    await setOwnField(firm.ada, lead.recordId, 'branch', 'Portland', DAY)
    await tagRecord(firm.ada, lead.recordId, 'florist', false, DAY)
    expect([await peopleOf(halifax), await peopleOf(florists), await into(lead, halifax, false)]).toEqual([[], [], false])
    expect(await into(lead, trikes, false)).toBe(true)
    expect((await readRecord(firm.ada, lead.recordId, DAY)).fields).toEqual({ branch: 'Portland' })
    const other = await makeThing(firm.ada, 'candidate', { firstName: 'Jonas', lastName: 'Reef' })
    await expect(into({ recordId: other }, halifax)).rejects.toMatchObject(problem(409, { type: 'other-records' }))
  })
})

describe('groups in lists', () => {
  it('are asked for, shown, sorted by and taken out', async () => {
    const [one, two, three] = [await makeLead(firm.ada, { city: 'Lihue' }), await makeLead(firm.ada, { city: 'Lihue' }), await makeLead(firm.ada, { city: 'Lihue' })]
    const [byHand, byRule] = [await group({ name: 'A by hand' }), await group({ name: 'B by rule', module: 'lead', where: where({ field: 'city', test: 'is', value: 'Lihue' }, is('tags', 'x')) })]
    await into(one, byHand)
    await tagRecord(firm.ada, two.recordId, 'x', true, DAY)
    const found = async (...of: Conditions['of']) =>
      (await listRecords(firm.ada, listed(where({ field: 'city', test: 'is', value: 'Lihue' }, ...of)), DAY)).rows.map(({ id }) => id)
    same(await found(is('groups', byHand)), ids(one))
    same(await found(is('groups', byHand, byRule)), ids(one, two))
    same(await found({ field: 'groups', test: 'none-of', value: [byHand, byRule] }), ids(three))
    same(await found({ field: 'groups', test: 'none-of', value: [byRule] }), ids(one, three))
    same(await found({ field: 'groups', test: 'filled' }), ids(one, two))
    same(await found({ field: 'groups', test: 'empty' }), ids(three))
    same(await found(is('groups', uuid(), 'no id')), [])
    const asked = listed(where({ field: 'city', test: 'is', value: 'Lihue' }), { sort: 'groups' })
    expect((await listRecords(firm.ada, { ...asked, groups: true }, DAY)).rows.map(row => row.groups)).toEqual([['A by hand'], ...[two, three]
      .sort((a, b) => a.recordId < b.recordId ? -1 : 1).map(lead => lead === two ? ['B by rule'] : [])])
    expect((await listRecords(firm.ada, asked, DAY)).rows[0]!.groups).toBeUndefined()
    expect((await listColumns(firm.ada, 'lead')).find(({ key }) => key === 'groups')?.choices).toContainEqual({ value: byRule, label: 'B by rule' })
    expect((await listColumns(firm.ada, 'client')).find(({ key }) => key === 'groups')?.choices?.map(({ label }) => label)).not.toContain('B by rule')
    const file = await exportRecords(firm.ada, exportQuery.validateSync({ ...asked, columns: 'name,groups', format: 'csv' }), DAY)
    let text = ''
    for await (const piece of file) text += String(piece)
    expect(text).toContain('A by hand')
    expect(text).toContain('B by rule')
  })

  it('hold the same in a list, on a page and in the group, whatever is asked', async () => {
    const leads = await Promise.all(Array.from({ length: 6 }, (_, i) => makeLead(firm.ada, { city: `Waimea ${i % 3}`, title: 'many' })))
    const groups = [
      await group(), await group(),
      await group({ module: 'lead', where: where({ field: 'city', test: 'is', value: 'Waimea 1' }, { field: 'title', test: 'is', value: 'many' }) }),
      await group({ module: 'lead', where: where({ field: 'city', test: 'is-not', value: 'Waimea 1' }, { field: 'title', test: 'is', value: 'many' }) }),
    ]
    await fc.assert(fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(5), fc.nat(1), fc.boolean()), { maxLength: 6 }), fc.subarray(groups, { minLength: 1 }), fc.boolean(),
      async (puts, asked, some) => {
        for (const [lead, place, isIn] of puts) await into(leads[lead]!, groups[place]!, isIn)
        const held = new Map<string, string[]>()
        for (const id of groups) held.set(id, await peopleOf(id))
        for (const { recordId } of leads)
          same(
            (await readRecord(firm.ada, recordId, DAY)).groups.map(({ id }) => id),
            groups.filter(id => held.get(id)!.includes(recordId)),
          )
        const { rows } = await listRecords(firm.ada, listed(where({ field: 'title', test: 'is', value: 'many' }, { field: 'groups', test: some ? 'one-of' : 'none-of', value: asked })), DAY)
        same(rows.map(({ id }) => id), ids(...leads).filter(id => asked.some(one => held.get(one)!.includes(id)) === some))
      }), { numRuns: 12 })
  })

  it('take in and lose many at once, which can be taken back', async () => {
    const [one, two, three, id] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada), await group({ name: 'All at once' })]
    await into(three, id)
    const change = async (kind: 'add-group' | 'remove-group') => {
      const form = bulkForm.validateSync({ id: uuid(), selection: { list: listed(''), ids: ids(one, two, three) }, change: { kind, groupId: id } })
      const counted = await previewBulk(firm.ada, form, DAY)
      await startBulk(firm.ada, form, DAY)
      await drain(later(DAY, 1_000))
      return { id: form.id, counted }
    }
    const version = (await readRecord(firm.ada, one.recordId, DAY)).version
    const added = await change('add-group')
    expect(added.counted).toMatchObject({ chosen: 3, changes: 2, alreadySo: 1 })
    same(await peopleOf(id), ids(one, two, three))
    expect(await newestOf(one.recordId)).toMatchObject({ kind: 'group-changed', data: { from: null, to: 'All at once', bulkId: added.id } })
    // nobody who edits a record meanwhile is stopped by that
    expect((await readRecord(firm.ada, one.recordId, DAY)).version).toBe(version)
    await takeBackBulk(firm.ada, added.id, later(DAY, 2_000))
    await drain(later(DAY, 3_000))
    expect(await peopleOf(id)).toEqual([three.recordId])
    expect(await newestOf(one.recordId)).toMatchObject({ data: { from: 'All at once', to: null, takenBack: true } })
    await change('remove-group')
    expect(await peopleOf(id)).toEqual([])
    const byRule = await group({ module: 'lead', where: where(is('tags', 'never')) })
    const wrong = (groupId: string, kind = 'add-group') =>
      previewBulk(firm.ada, bulkForm.validateSync({ id: uuid(), selection: { list: listed(''), ids: ids(one) }, change: { kind, groupId } }), DAY)
    await expect(wrong(byRule)).rejects.toMatchObject(problem(422, { fields: { 'change.groupId': expect.stringContaining('by its rule') } }))
    await expect(wrong(uuid())).rejects.toMatchObject(problem(404))
  })
})

describe('texting and calling a group', () => {
  const newest = { beforeAt: null, beforeId: null }

  it('means all in it, of whatever kind, with those on a deal, and each once', async () => {
    const [lead, onIt] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const deal = await makeThing(firm.ada, 'deal', { name: 'Two long-johns' }, [lead.recordId, onIt.recordId])
    const candidate = await makeThing(firm.ada, 'candidate', { firstName: 'Noa', lastName: 'Kai' })
    const id = await group()
    for (const recordId of [lead.recordId, deal, candidate]) await into({ recordId }, id)
    const bulk = uuid()
    await makeBulk(firm.ada, makeBulkForm.validateSync({ id: bulk, name: 'For them', groupId: id }), DAY)
    expect(await readBulk(firm.ada, bulk)).toMatchObject({ people: 3, modules: expect.arrayContaining(['lead', 'candidate']) })
    const round = uuid()
    expect(await makeRound(firm.ada, roundForm.validateSync({ id: round, name: 'Call them', groupId: id, teamId: firm.ada.teamIds[0] }), DAY)).toEqual({ id: round })
    await expect(makeBulk(firm.ada, makeBulkForm.validateSync({ id: uuid(), name: 'For nobody' }), DAY))
      .rejects.toMatchObject(problem(422, { fields: { selection: expect.stringContaining('Choose people first') } }))
    await expect(makeBulk(firm.ada, makeBulkForm.validateSync({ id: uuid(), name: 'None in it', groupId: await group() }), DAY)).rejects.toMatchObject(problem(422))
  })

  it('leaves in its feed what was sent to it and what came back, for those who may read it', async () => {
    fakeCarrier()
    const [one, two, id] = [await makeLead(firm.ada), await makeLead(firm.ada), await group()]
    await into(one, id)
    await into(two, id)
    expect(await readGroupFeed(firm.ada, id, newest, DAY)).toEqual({ items: [], next: null })
    const bulk = uuid()
    await makeBulk(firm.ada, makeBulkForm.validateSync({ id: bulk, name: 'Saturday', groupId: id }), DAY)
    await writeBulk(firm.ada, bulk, writeBulkForm.validateSync({ name: 'Saturday', body: 'Come and ride on Saturday. Ada', lineId: firm.portland.id }), DAY)
    await startCheck(firm.ada, bulk, DAY)
    await drain(DAY)
    await startBulkText(firm.ada, bulk, startBulkForm.cast({}), DAY)
    let now = DAY
    for (let i = 0; i < 12; i++) await drain(now = later(now, 1_000))
    const says = (from: string, text: string, at: Date) =>
      takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, at)
    await says(one.e164, 'Gladly!', later(now, 60_000))
    await says(one.e164, 'With my son', later(now, 120_000))
    await says(two.e164, 'Months later', later(now, 60 * 86_400_000))
    const after = later(now, 61 * 86_400_000)
    await drain(after)
    expect((await readGroupFeed(firm.ada, id, newest, after)).items).toMatchObject([
      { kind: 'came-in', words: 'With my son', recordId: one.recordId },
      { kind: 'came-in', words: 'Gladly!', recordId: one.recordId },
      { kind: 'sent', name: 'Saturday', by: 'Ada', texted: 2, answered: 1, mayOpen: true },
    ])
    expect((await readGroupFeed(firm.noor, id, newest, after)).items).toMatchObject([{ kind: 'sent', mayOpen: false }])
    expect((await readGroupFeed(firm.ada, id, { beforeAt: later(now, 90_000).getTime(), beforeId: null }, after)).items).toHaveLength(2)
    // several of one moment are each shown once, over however many pages
    const atOnce = later(now, 200_000)
    for (let i = 0; i < 45; i++) await says(two.e164, `Text ${i}`, atOnce)
    const first = await readGroupFeed(firm.ada, id, newest, after)
    const second = await readGroupFeed(firm.ada, id, { beforeAt: first.next!.at, beforeId: first.next!.id }, after)
    const all = [...first.items, ...second.items].map(item => item.kind === 'came-in' ? item.words : item.kind)
    expect([all.length, new Set(all).size, second.next]).toEqual([48, 48, null])
    // what was sent to it stays with each of them when it is removed
    await removeGroup(firm.ada, id, DAY)
    expect(await readBulk(firm.ada, bulk)).toMatchObject({ counts: { texted: 2 } })
  })
})
