import { v7 as uuid } from 'uuid'
import type { Effect } from '~~/core/effects/effects'
import { dial } from '~~/server/calling/dial'
import { dispose } from '~~/server/calling/dispose'
import { saveDisposition } from '~~/server/calling/disposition-edit'
import { previewDispositions } from '~~/server/calling/preview'
import { takeDispositionBack } from '~~/server/calling/take-back'
import { tx } from '~~/server/db/door'
import { customField } from '~~/server/db/schema'
import { readRecord } from '~~/server/pages/record'
import { setOwnField } from '~~/server/records/set-field'
import { readTimeline } from '~~/server/timeline/read'
import { dialForm, disposeForm } from '~~/shared/schemas/calling'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  const field = { module: 'lead', example: '', options: [] as string[] } as const
  await tx(database => database.insert(customField).values([
    { ...field, id: uuid(), key: 'bikes', label: 'Bikes wanted', kind: 'number', position: 0 },
    { ...field, id: uuid(), key: 'hill', label: 'On a hill', kind: 'yes-no', position: 1 },
    { ...field, id: uuid(), key: 'from', label: 'Heard of us', kind: 'choice', options: ['a friend', 'the fair'], position: 2 },
  ]))
})

let letters = 0
async function key(effects: Effect[]): Promise<string> {
  const id = uuid()
  await saveDisposition(
    firm.odile,
    dispositionForm.validateSync({
      id,
      module: 'lead',
      name: `Key ${letters}`,
      family: 'reached',
      letter: String.fromCharCode(97 + letters++),
      effects,
    }),
    DAY,
  )
  return id
}
async function called(values: object = {}) {
  const exchange = fakeExchange()
  fakeCarrier()
  const lead = await makeLead(firm.ada, values)
  const form = dialForm.validateSync({ id: uuid(), phoneId: lead.phoneId, lineId: firm.portland.id })
  await dial(firm.ada, form, DAY)
  await exchange.tell(form.id, { kind: 'ended', at: DAY.getTime() + 1_000, why: 'no-answer', side: 'network' })
  return { ...lead, callId: form.id }
}
const press = (callId: string, dispositionId: string, choices: object[] = []) =>
  dispose(firm.ada, callId, disposeForm.validateSync({ dispositionId, choices }), DAY)
const fields = async (recordId: string) => (await readRecord(firm.ada, recordId, DAY)).fields
const refused = (field: string) => ({ details: { status: 422, fields: { [field]: expect.any(String) } } })

describe('a disposition that sets a field', () => {
  it('is checked when it is made: the field, and the value by its kind', async () => {
    await expect(key([{ kind: 'field', field: 'nothing', value: 1 }])).rejects.toMatchObject(refused('effects[0].field'))
    await expect(key([{ kind: 'field', field: 'bikes', value: 'many' }])).rejects.toMatchObject(refused('effects[0].value'))
    await expect(key([{ kind: 'field', field: 'from', value: 'the moon' }])).rejects.toMatchObject(refused('effects[0].value'))
  })

  it('shows what it will do, does it as a value of its kind, says so on the timeline, and gives back what was', async () => {
    const id = await key([{ kind: 'field', field: 'hill', value: 'yes' }, { kind: 'field', field: 'bikes', value: '3' }])
    const { callId, recordId } = await called({ fields: { bikes: 2 } })
    const shown = (await previewDispositions(firm.ada, callId, DAY)).find(one => one.id === id)!
    expect(shown.effects.map(({ words, problem }) => [words, problem])).toEqual([['On a hill to yes', null], ['Bikes wanted to 3', null]])
    expect((await press(callId, id)).effects.map(({ state }) => state)).toEqual(['done', 'done'])
    expect(await fields(recordId)).toEqual({ hill: true, bikes: 3 })
    const changes = (await readTimeline(firm.mika, recordId)).entries.flatMap(({ kind, data }) =>
      kind === 'fields-changed' ? data.changes : [],
    )
    expect(changes).toEqual(
      expect.arrayContaining([
        { field: 'bikes', label: 'Bikes wanted', from: '2', to: '3' },
        { field: 'hill', label: 'On a hill', from: null, to: 'yes' },
      ]),
    )
    expect((await takeDispositionBack(firm.ada, callId, DAY)).effects.map(({ state }) => state)).toEqual(['taken-back', 'taken-back'])
    expect(await fields(recordId)).toEqual({ bikes: 2 })
  })

  it('asks for a value that it does not have, and takes one that is said', async () => {
    const id = await key([{ kind: 'field', field: 'bikes', value: null }])
    const { callId, recordId } = await called()
    await expect(press(callId, id)).rejects.toMatchObject(refused('choices.0.value'))
    await expect(press(callId, id, [{ position: 0, answers: { value: 'some' } }])).rejects.toMatchObject(refused('choices.0.value'))
    expect((await press(callId, id, [{ position: 0, answers: { value: '5' } }])).effects).toMatchObject([
      { words: 'Bikes wanted to 5', state: 'done' },
    ])
    expect(await fields(recordId)).toEqual({ bikes: 5 })
  })

  it('fails alone where the field is gone, and stays where somebody has changed it since', async () => {
    const id = await key([{ kind: 'field', field: 'from', value: 'a friend' }, { kind: 'add-tag', tag: 'asked' }])
    const { callId, recordId } = await called()
    await press(callId, id)
    await setOwnField(firm.mika, recordId, 'from', 'the fair', DAY)
    expect((await takeDispositionBack(firm.ada, callId, DAY)).effects.map(({ state, reason }) => [state, reason])).toEqual([
      ['stays', 'Somebody has changed Heard of us since.'],
      ['taken-back', null],
    ])
    expect(await fields(recordId)).toEqual({ from: 'the fair' })
    await tx(database => database.update(customField).set({ retiredAt: DAY }))
    const other = await called()
    expect((await press(other.callId, id)).effects.map(({ state }) => state)).toEqual(['failed', 'done'])
  })
})
