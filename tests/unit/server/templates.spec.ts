import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { customField, templateVersion } from '~~/server/db/schema'
import { fillForRecord, tryTemplate } from '~~/server/templates/fill'
import { addTemplate, changeTemplate, listTemplates } from '~~/server/templates/templates'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database => database.insert(customField).values({ id: uuid(), module: 'lead', key: 'trial_day', label: 'Trial starts', kind: 'date', example: '2026-12-03', position: 0 }))
})

const make = (body: string, modules: ('lead' | 'candidate')[] = ['lead'], who = firm.ada) => addTemplate(who, { id: uuid(), name: 'Hello', modules, body }, DAY)

describe('saving a template', () => {
  it('refuses a field that its modules do not have, with the place', async () => {
    await expect(make('Hi {{ person.first_name }},\nsee you {{ person.trial_day }}', ['lead', 'candidate'])).rejects.toMatchObject({
      details: { status: 422, fields: { body: 'Line 2, character 12: “person.trial_day” does not exist for candidates, to which this template belongs too.' } },
    })
    await expect(make('{{ company.employees }}')).rejects.toMatchObject({ details: { fields: { body: expect.stringContaining('There is no field') } } })
  })

  it('keeps every version, and tells when somebody was faster', async () => {
    const id = await make('Hi {{ person.first_name }}')
    await changeTemplate(firm.ada, id, { name: 'Hello', modules: ['lead'], body: 'Hello {{ person.first_name }}', version: 1 }, DAY)
    await expect(changeTemplate(firm.odile, id, { name: 'Hello', modules: ['lead'], body: 'Hey', version: 1 }, DAY)).rejects.toMatchObject({ details: { type: 'stale' } })
    const versions = (await tx(database => database.select().from(templateVersion))).filter(version => version.templateId === id)
    expect(versions.map(({ version, body }) => [version, body])).toEqual([[1, 'Hi {{ person.first_name }}'], [2, 'Hello {{ person.first_name }}']])
  })

  it('is for its owner and for leads', async () => {
    const id = await make('Hi {{ person.first_name }}')
    const change = { name: 'Hello', modules: ['lead' as const], body: 'Hey {{ person.first_name }}', version: 1 }
    await expect(changeTemplate(firm.mika, id, change, DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await changeTemplate(firm.odile, id, change, DAY)
    expect((await listTemplates(firm.mika)).find(template => template.id === id)).toMatchObject({ version: 2, owner: 'Ada Lund', mayEdit: false })
  })
})

describe('filling a template', () => {
  it('fills it for the record with the sender\'s own words, or says what is missing', async () => {
    const { recordId } = await makeLead(firm.ada, { fields: { trial_day: '2026-12-03' } })
    const other = await makeLead(firm.ada, { firstName: 'Wren' })
    const id = await make('Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}: it starts on {{ person.trial_day | date: "long" }}.')
    const filled = async (record: string) => (await fillForRecord(firm.mika, record)).find(template => template.id === id)
    expect(await filled(recordId)).toMatchObject({ text: 'Hi Iris, Mika from Pannier & Post: it starts on Thursday 3 December.', missing: [] })
    expect(await filled(other.recordId)).toMatchObject({ text: null, missing: ['Trial starts'] })
    await expect(fillForRecord(firm.noor, recordId)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it('tries an unsaved one on a record, with its mistakes', async () => {
    const { recordId } = await makeLead(firm.ada)
    expect(await tryTemplate(firm.ada, 'Hi {{ person.first_name }}', ['lead'], recordId)).toMatchObject({ text: 'Hi Iris', record: { name: 'Iris Holm' } })
    expect(await tryTemplate(firm.ada, 'Hi {{ person.trial_day }}', ['lead'], recordId)).toMatchObject({ text: null, holes: [{ label: 'Trial starts', line: 1, column: 4 }] })
    expect(await tryTemplate(firm.ada, 'Hi {{ person.trail }}', ['lead'], null)).toMatchObject({ text: null, problems: [{ line: 1 }] })
  })
})
