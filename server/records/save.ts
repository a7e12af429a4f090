import { valueIn } from '~~/core/fields/own'
import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { readFieldValue } from '~~/core/fields/value'
import { zoneRules } from '~~/core/hours/zones'
import { DAY_FIELD, keyOf } from '~~/shared/fields'
import {
  CHOICE_OF_PIPELINE,
  hasNumbers,
  HELD_FACTS,
  isDatedModule,
  isPersonModule,
  MATTER_MODULES,
  MODULE_FACTS,
  type Module,
} from '~~/shared/modules'
import { can } from '~~/shared/permissions'
import type { EditRecord, MakeRecord, PhoneForm, RecordForm } from '~~/shared/schemas/record'
import { ask, read, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { colleague, firm, phone, pipeline, record, stage } from '../db/schema'
import { badInput, conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { announce } from '../live/notices'
import { takeAlong } from '../activity/take-along'
import { appendEntry } from '../activity/append'
import { fillBack } from '../activity/fill-back'
import { takeApplicantsAlong } from './applicants'
import { changesBetween, type Change } from './changes'
import { customFieldsOf } from './fields'
import { formOf, merge } from './merge'
import { authorize, type StoredRecord } from './one'
import { belongingTo } from './owner'
import { putOn } from './people'
import { storedPhone } from './phones'
import { pipelinesOf } from './pipelines'
import { stagesOf } from './stages'

type StoredPhone = typeof phone.$inferSelect

/**
 * Makes a record. Sending the same again gives the first one.
 *
 * @returns its id
 * @throws Problem 422 for fields that do not fit the module
 */
export async function addRecord(asker: SignedIn, form: MakeRecord, now: Date): Promise<string> {
  return tx(async (database) => {
    const [existing] = await database.select({ id: record.id, ownerId: record.ownerId }).from(record).where(eq(record.id, form.id))
    if (existing) {
      if (existing.ownerId !== (form.ownerId ?? asker.id))
        throw conflict('id-taken', 'Already there', 'A record with this id exists. Reload the page and try again.')
      return existing.id
    }
    const values = await valuesIn(asker, form, form.module)
    const belonging = await belongingTo(form.ownerId ?? asker.id, asker.teamIds[0] ?? null)
    await database.insert(record).values({ ...values, ...belonging, id: form.id, module: form.module, madeAt: now })
    await savePhones(asker, form.id, [], form.phones, form.country)
    await appendEntry({ id: uuid(), at: now, kind: 'record-made', colleagueId: asker.id }, [form.id])
    for (const personId of form.personIds) await putOn(asker, form.id, personId, now)
    return form.id
  })
}

/**
 * Changes a record, field by field onto its timeline. Of a form that says what it was, only what was changed in it counts.
 *
 * @throws Problem 409 with both values of each field that somebody else changed meanwhile
 */
export async function changeRecord(asker: SignedIn, recordId: string, edit: EditRecord, now: Date): Promise<void> {
  await tx(async (database) => {
    const before = await authorize(asker, 'record.edit', recordId)
    const phonesBefore = await database.select().from(phone).where(eq(phone.recordId, recordId)).orderBy(phone.position)
    const { form, clashes } = edit.was ? merge(formOf(before, phonesBefore), edit) : { form: edit, clashes: null }
    const values = {
      ...(await valuesIn(asker, await withHiddenLinks(asker, before, form), before.module, before)),
      ...(await belongingTo(form.ownerId ?? before.ownerId, before.teamId)),
    }
    values.fields = { ...await retiredValues(before), ...values.fields }
    const fields = await customFieldsOf(before.module)
    const differences = async () =>
      changesBetween(before, phonesBefore, { ...before, ...values }, form.phones, fields, await namesIn(asker, before, values))
    if (clashes && clashes.size > 0)
      throw stale((await differences()).filter(({ field }) => clashes.has(field) || clashes.has(`${field}Id`)), before.version, theirs(before, phonesBefore, clashes))
    const [changed] = await database.update(record)
      .set({ ...values, ...(values.stageId !== before.stageId && { stageSince: now }), version: sql`${record.version} + 1` })
      .where(and(eq(record.id, recordId), eq(record.version, clashes ? before.version : edit.version)))
      .returning()
    if (!changed) throw stale(await differences(), before.version)
    const phonesAfter = await savePhones(asker, recordId, phonesBefore, form.phones, form.country)
    await logChanges(
      asker,
      changed,
      changesBetween(before, phonesBefore, changed, phonesAfter, fields, await namesIn(asker, before, changed)),
      now,
    )
    if (changed.module === 'job' && changed.pipelineId !== before.pipelineId) await takeApplicantsAlong(changed, now)
    if (changed.companyId && changed.companyId !== before.companyId) await fillBack(changed.companyId, recordId, null, now)
    announce({ kind: 'record', recordId }, 'record.see', [before, changed])
  })
}

/** What stands now in the fields that clash, as a form has them: whoever saves again has seen it. */
function theirs(before: StoredRecord, phones: StoredPhone[], clashes: Set<string>) {
  const { fields, ...form } = formOf(before, phones)
  const among = <T extends object>(values: T) => Object.fromEntries(Object.entries(values).filter(([key]) => clashes.has(key)))
  const own = Object.fromEntries([...clashes].filter(key => !(key in form)).map(key => [key, valueIn(fields, key) ?? null]))
  return { ...among(form), ...(Object.keys(own).length > 0 && { fields: own }) }
}

async function logChanges(asker: SignedIn, { id }: StoredRecord, changes: Change[], now: Date): Promise<void> {
  const moved = changes.find(change => change.field === 'stage')
  const others = changes.filter(change => change !== moved)
  if (moved)
    await appendEntry({ id: uuid(), at: now, kind: 'stage-changed', colleagueId: asker.id, data: { from: moved.from, to: moved.to } }, [id])
  if (others.length > 0)
    await appendEntry({ id: uuid(), at: now, kind: 'fields-changed', colleagueId: asker.id, content: { changes: others } }, [id])
}

/** Others were quicker: nothing is taken over, and both values are told. */
function stale(differences: Change[], version: number, was: Record<string, unknown> | null = null) {
  return conflict(
    'stale',
    'Changed meanwhile',
    'Somebody else has changed this record since you opened it. Look at both values and save again.',
    {
      version,
      was,
      differences: differences.map(({ label, from, to }) => ({ label, theirs: from, mine: to })),
    },
  )
}

type Linked = Pick<StoredRecord, 'companyId' | 'aboutId' | 'ownerId' | 'pipelineId' | 'stageId'>

/** The names of what records speak of by an id, as far as the asker may know them. */
async function namesIn(asker: SignedIn, ...records: Linked[]): Promise<Map<string, string>> {
  const ids = uuidArray(
    records.flatMap(({ companyId, aboutId, ownerId, pipelineId, stageId }) =>
      [companyId, aboutId, ownerId, pipelineId, stageId].filter(id => id !== null),
    ),
  )
  const { rows } = await ask<{ id: string, name: string }>(sql`
    select id, name from ${record} where id = any(${ids})
      and ${visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })} union all select id, name from ${colleague}
        where id = any(${ids}) union all select id, name from ${pipeline} where id = any(${ids}) union all select id, name from ${stage}
          where id = any(${ids})`)
  return new Map(rows.map(row => [row.id, row.name]))
}

/** A link to what the asker may not see stands in no form of theirs, and stays as it is unless they put another one in its place. */
async function withHiddenLinks<F extends RecordForm>(asker: SignedIn, before: StoredRecord, form: F): Promise<F> {
  const hidden = async (id: string | null) => {
    const [found] = id ? await read(database => database.select().from(record).where(eq(record.id, id))) : []
    return found && !can(asker, 'record.see', found) ? found.id : null
  }
  return { ...form, companyId: form.companyId ?? await hidden(before.companyId), aboutId: form.aboutId ?? await hidden(before.aboutId) }
}

async function valuesIn(asker: SignedIn, form: RecordForm, module: Module, before?: StoredRecord) {
  const { firstName, lastName, title, companyId, aboutId, street, city, region, postcode, country, zone, mail, tags, phones } = form
  const { wishFrom, wishTo } = form
  const { one } = MODULE_FACTS[module]
  const person = isPersonModule(module)
  const name = person ? [firstName, lastName].filter(Boolean).join(' ') : form.name
  if (!name) throw badInput(person ? { firstName: 'Give a first or a last name.' } : { name: `Give the ${one.toLowerCase()} a name.` })
  if (phones.length > 0 && !hasNumbers(module))
    throw badInput({ phones: `${MODULE_FACTS[module].many} have no numbers of their own. Put the people on it who have them.` })
  if (zone && !zoneRules(zone)) throw badInput({ zone: `“${zone}” is not a time zone. Write one such as America/Denver.` })
  if (companyId && companyId !== before?.companyId) await mustBeOne(asker, companyId, ['company'], 'companyId')
  if (aboutId && aboutId !== before?.aboutId) await mustBeOne(asker, aboutId, isDatedModule(module) ? MATTER_MODULES : [], 'aboutId')
  const pipelineId = await pipelineFor(module, form.pipelineId)
  const fields = await readOwnFields(module, form.fields, country ?? undefined)
  return {
    firstName,
    lastName,
    name,
    title,
    companyId,
    aboutId,
    pipelineId,
    stageId: await stageFor(module, pipelineId, form.stageId),
    street,
    city,
    region,
    postcode,
    country,
    zone,
    wishFrom,
    wishTo,
    mail,
    tags,
    fields,
  }
}

/** The stage asked for, or the first there is. */
async function stageFor(module: Module, pipelineId: string | null, wanted: string | null): Promise<string | null> {
  const stages = await stagesOf(module, pipelineId)
  if (wanted && !stages.some(({ id }) => id === wanted))
    throw badInput({
      stageId: `${module === 'deal' ? 'This pipeline has' : `${MODULE_FACTS[module].many} have`} no such stage. Choose one of ${stages.map(({ name }) => name).join(', ')}.`,
    })
  return wanted ?? stages[0]?.id ?? null
}

/** The pipeline asked for, or the first that the module has. */
async function pipelineFor(module: Module, wanted: string | null): Promise<string | null> {
  const held = CHOICE_OF_PIPELINE[module]
  if (!held) return null
  const pipelines = await pipelinesOf(held)
  const found = wanted ? pipelines.find(({ id }) => id === wanted) : pipelines[0]
  if (!found)
    throw badInput({ pipelineId: `There is no such pipeline of ${HELD_FACTS[held].many.toLowerCase()}. Choose one from the list.` })
  return found.id
}

/** @throws Problem 422 at each field whose value is not of its kind */
async function readOwnFields(module: Module, given: Record<string, unknown>, country?: string): Promise<Record<string, unknown>> {
  const problems: Record<string, string> = {}
  const fields: Record<string, unknown> = {}
  for (const field of await customFieldsOf(module)) {
    const key = keyOf(field)
    const reading = readFieldValue(field, valueIn(given, key), country)
    if (!reading.ok) problems[`fields.${key}`] = reading.reason
    else if (reading.value !== null) fields[key] = reading.value
  }
  if (isDatedModule(module) && !fields[DAY_FIELD]) problems[`fields.${DAY_FIELD}`] ??= 'Give the day. It is listed and found by it.'
  if (Object.keys(problems).length > 0) throw badInput(problems)
  return fields
}

/** What a record holds in fields that are asked for no more stays as it is. */
async function retiredValues({ module, fields }: StoredRecord): Promise<Record<string, unknown>> {
  const known = new Set((await customFieldsOf(module)).map(keyOf))
  return Object.fromEntries(Object.entries(fields).filter(([key]) => !known.has(key)))
}

async function mustBeOne(asker: SignedIn, id: string, modules: readonly Module[], field: 'companyId' | 'aboutId'): Promise<void> {
  const [found] = await read(database => database.select().from(record).where(eq(record.id, id)))
  const what = field === 'companyId' ? 'company' : 'deal, job or case'
  if (!found || !modules.includes(found.module) || !can(asker, 'record.see', found))
    throw badInput({ [field]: `There is no such ${what}. Choose one from the list.` })
}

/** Keeps rows whose words did not change, so that what hangs on them stays. */
async function savePhones(
  asker: SignedIn,
  recordId: string,
  before: StoredPhone[],
  forms: PhoneForm[],
  recordCountry: string | null,
): Promise<StoredPhone[]> {
  return tx(async (database) => {
    const [{ country: firmCountry } = { country: 'US' }] = await database.select({ country: firm.country }).from(firm)
    const kept = forms.flatMap(form => form.id ?? [])
    const gone = before.filter(row => !kept.includes(row.id)).map(row => row.id)
    if (gone.length > 0) await database.delete(phone).where(inArray(phone.id, gone))
    const rows: StoredPhone[] = []
    for (const [position, { id, label, typed }] of forms.entries()) {
      const old = before.find(row => row.id === id)
      const reading
        = old?.typed === typed && (!old.unusable || old.unusable === 'not-theirs') ? old : storedPhone(typed, recordCountry ?? firmCountry)
      const row = { wrongE164: null, ...reading, id: old?.id ?? uuid(), recordId, position, label }
      await database.insert(phone).values(row).onConflictDoUpdate({ target: phone.id, set: row })
      rows.push(row)
    }
    const heldBefore = new Set(before.map(row => row.e164))
    for (const { e164 } of rows) if (e164 && !heldBefore.has(e164)) await takeAlong(asker, recordId, e164)
    return rows
  })
}
