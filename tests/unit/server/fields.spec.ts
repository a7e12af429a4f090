import { v7 as uuid } from 'uuid'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { fieldForm } from '~~/shared/schemas/field'
import { editRecord } from '~~/shared/schemas/record'
import { makeTemplate } from '~~/shared/schemas/template'
import { viewForm } from '~~/shared/schemas/list'
import { saveDisposition } from '~~/server/calling/disposition-edit'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { addField, changeField, customFieldsOf, listFields, orderFields, retireField, takeUpField } from '~~/server/records/fields'
import { readRecord } from '~~/server/pages/record'
import { changeRecord } from '~~/server/records/save'
import { listColumns, saveView } from '~~/server/records/views'
import { addTemplate } from '~~/server/templates/templates'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const form = (values: object) => fieldForm.validateSync({ id: uuid(), module: 'lead', kind: 'text', ...values })
const make = async (values: object) => {
  const field = form(values)
  await addField(firm.rafe, field, DAY)
  return field
}
const save = async (recordId: string, fields: Record<string, unknown>) => {
  const now = await readRecord(firm.ada, recordId, DAY)
  await changeRecord(
    firm.ada,
    recordId,
    editRecord.validateSync({ ...now, phones: now.phones.map(({ id, label, typed }) => ({ id, label, typed })), fields }),
    DAY,
  )
  return (await readRecord(firm.ada, recordId, DAY)).fields
}

describe('a field of one\'s own', () => {
  it('gets a key that stays, whatever it is called later, and stands in catalogue, lists and the audit log', async () => {
    const field = await make({ label: 'Box size', kind: 'choice', options: ['narrow', 'wide'], example: 'wide' })
    expect(
      (await changeField(firm.rafe, field.id, { ...field, label: 'Size of the box' }, DAY)).find(one => one.id === field.id),
    ).toMatchObject({ key: 'box_size', label: 'Size of the box' })
    expect((await customFieldsOf('lead')).find(one => one.path === 'person.box_size')).toMatchObject({
      label: 'Size of the box',
      options: ['narrow', 'wide'],
    })
    expect((await listColumns(firm.ada, 'lead')).find(one => one.key === 'own.box_size')).toMatchObject({
      kind: 'one',
      choices: [
        { value: 'narrow', label: 'narrow' },
        { value: 'wide', label: 'wide' },
      ],
    })
    expect(await customFieldsOf('client')).toEqual([])
    const actions = (await tx(database => database.select().from(audit))).map(entry => entry.action)
    expect(actions).toEqual(expect.arrayContaining(['field-made', 'field-changed']))
  })

  it('never takes the key of a field that there is', async () => {
    const made = await Promise.all(['City?', 'Köln', 'Koln!'].map(label => make({ label })))
    expect(
      (await listFields('lead'))
        .filter(field => made.some(one => one.id === field.id))
        .map(field => field.key)
        .sort(),
    ).toEqual(['city_2', 'koln', 'koln_2'])
  })

  it.each([
    [{ label: 'First name' }, 'label'],
    [{ label: 'box SIZE of old' }, null],
    [{ label: 'Choice', kind: 'choice', options: ['one'] }, 'schema'],
    [{ label: '' }, 'schema'],
    [{ label: 'x', kind: 'colour' }, 'schema'],
  ])('is refused with what is wrong: %j', async (values, where) => {
    if (where === 'schema') return expect(() => form(values)).toThrow()
    if (where === null) return expect(make(values)).resolves.toBeDefined()
    await expect(make(values)).rejects.toMatchObject({ details: { status: 422, fields: { [where]: expect.any(String) } } })
  })

  it('is an admin\'s to make, change, order and retire', async () => {
    const field = await make({ label: 'Only for admins' })
    for (const who of [firm.ada, firm.odile]) {
      for (const attempt of [
        addField(who, form({ label: 'Mine' }), DAY),
        changeField(who, field.id, field, DAY),
        orderFields(who, 'lead', [], DAY),
        retireField(who, field.id, DAY),
        takeUpField(who, field.id, DAY),
      ]) {
        await expect(attempt).rejects.toMatchObject({ details: { status: 403 } })
      }
    }
  })

  it('stands where it is put', async () => {
    const ids = (await listFields('lead')).filter(field => !field.retired).map(field => field.id).reverse()
    await orderFields(firm.rafe, 'lead', ids, DAY)
    expect((await listFields('lead')).filter(field => !field.retired).map(field => field.id)).toEqual(ids)
  })
})

describe('what records hold in it', () => {
  it('is of its kind, or refused at the field', async () => {
    await make({ label: 'Fleet', kind: 'number' })
    await make({ label: 'Indoors', kind: 'yes-no' })
    const { recordId } = await makeLead(firm.ada)
    expect(await save(recordId, { fleet: '1,200', indoors: 'no' })).toMatchObject({ fleet: 1200, indoors: false })
    await expect(save(recordId, { fleet: 'many' })).rejects.toMatchObject({
      details: { status: 422, fields: { 'fields.fleet': 'Write a number, such as 24 or 1.5.' } },
    })
  })

  it('outlives its retirement, and every edit meanwhile', async () => {
    const field = await make({ label: 'Brake' })
    const { recordId } = await makeLead(firm.ada)
    await save(recordId, { brake: 'disc' })
    await retireField(firm.rafe, field.id, DAY)
    expect((await listColumns(firm.ada, 'lead')).map(column => column.key)).not.toContain('own.brake')
    expect(await save(recordId, { brake: 'rim', fleet: 3 })).toMatchObject({ brake: 'disc', fleet: 3 })
    await takeUpField(firm.rafe, field.id, DAY)
    expect(await save(recordId, { brake: 'rim' })).toMatchObject({ brake: 'rim' })
  })

  it('is still asked for by the templates and lists that are named when it is to be retired', async () => {
    const field = await make({ label: 'Lock' })
    const near = await make({ label: 'Lock two' })
    await addTemplate(
      firm.odile,
      makeTemplate.validateSync({
        id: uuid(),
        name: 'About the lock',
        modules: ['lead'],
        body: 'The {{ person.lock | default: "lock" }} fits.',
      }),
      DAY,
    )
    await saveView(
      firm.ada,
      viewForm.validateSync({
        id: uuid(),
        module: 'lead',
        name: 'No lock',
        columns: ['name'],
        where: JSON.stringify({ match: 'any', of: [{ match: 'all', of: [{ field: 'own.lock', test: 'empty' }] }] }),
        sort: 'name',
        direction: 'up',
      }),
      DAY,
    )
    await expect(retireField(firm.rafe, field.id, DAY)).rejects.toMatchObject({
      details: { type: 'in-use', detail: expect.stringMatching(/“About the lock”.*“No lock”/) },
    })
    await expect(retireField(firm.rafe, near.id, DAY)).resolves.toBeDefined()
  })

  it('keeps a choice that records have, or that a list or a disposition asks for, until nothing does', async () => {
    const field = await make({ label: 'Bell', kind: 'choice', options: ['brass', 'silver', 'horn', 'none'] })
    const { recordId } = await makeLead(firm.ada)
    await save(recordId, { bell: 'silver' })
    await saveView(
      firm.ada,
      viewForm.validateSync({
        id: uuid(), module: 'lead', name: 'With a horn', columns: ['name'], sort: 'name', direction: 'up',
        where: JSON.stringify({ match: 'all', of: [{ field: 'own.bell', test: 'one-of', value: ['horn'] }] }),
      }),
      DAY,
    )
    const keyed = dispositionForm.validateSync({ id: uuid(), module: 'lead', name: 'Wants brass', family: 'reached', letter: 'q', effects: [{ kind: 'field', field: 'bell', value: 'brass' }] })
    await saveDisposition(firm.odile, keyed, DAY)
    const without = (choice: string) =>
      changeField(firm.rafe, field.id, { ...field, options: field.options.filter(one => one !== choice) }, DAY)
    const refused = (words: RegExp) => ({ details: { status: 422, fields: { options: expect.stringMatching(words) } } })
    await expect(without('silver')).rejects.toMatchObject(refused(/^1 lead still has “silver”/))
    await expect(without('horn')).rejects.toMatchObject(refused(/“With a horn” asks for “horn”/))
    await expect(without('brass')).rejects.toMatchObject(refused(/“Wants brass” asks for “brass”/))
    await expect(retireField(firm.rafe, field.id, DAY)).rejects.toMatchObject({ details: { detail: expect.stringMatching(/“With a horn”.*“Wants brass”/) } })
    await expect(without('none')).resolves.toBeDefined()
    await save(recordId, { bell: 'brass' })
    await expect(without('silver')).resolves.toBeDefined()
  })
})
