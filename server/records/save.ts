import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { readFieldValue } from '~~/core/fields/value'
import { zoneRules } from '~~/core/hours/zones'
import { isPersonModule, MODULE_FACTS, type Module } from '~~/shared/modules'
import { can } from '~~/shared/permissions'
import type { EditRecord, MakeRecord, PhoneForm, RecordForm } from '~~/shared/schemas/record'
import { tx } from '../db/door'
import { firm, phone, record } from '../db/schema'
import { badInput, conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { adoptConversations } from '../texting/adopt'
import { appendEntry } from '../timeline/append'
import { changesBetween, type Change } from './changes'
import { customFieldsOf } from './fields'
import { mustHold, type StoredRecord } from './one'
import { storedPhone } from './phones'

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
      if (existing.ownerId !== asker.id) throw conflict('id-taken', 'Already there', 'A record with this id exists. Reload the page and try again.')
      return existing.id
    }
    const values = await columnsOf(asker, form, form.module)
    const teamId = asker.teamIds[0]
    if (!teamId) throw badInput({ name: 'You are in no team yet, so nobody would see it. Ask an admin to put you in one.' })
    const stage = form.stage ?? MODULE_FACTS[form.module].stages[0] ?? null
    await database.insert(record).values({ ...values, stage, id: form.id, module: form.module, ownerId: asker.id, teamId, madeAt: now })
    await savePhones(form.id, [], form.phones, form.country)
    await appendEntry({ id: uuid(), at: now, kind: 'record-made', colleagueId: asker.id }, [form.id])
    return form.id
  })
}

/**
 * Changes a record, field by field onto its timeline.
 *
 * @throws Problem 409 with both values of each field that somebody else changed meanwhile
 */
export async function changeRecord(asker: SignedIn, recordId: string, form: EditRecord, now: Date): Promise<void> {
  await tx(async (database) => {
    const before = await mustHold(asker, 'record.edit', recordId)
    const phonesBefore = await database.select().from(phone).where(eq(phone.recordId, recordId)).orderBy(phone.position)
    const values = await columnsOf(asker, form, before.module)
    values.fields = { ...await retiredValues(before), ...values.fields }
    const [changed] = await database.update(record)
      .set({ ...values, version: sql`${record.version} + 1` })
      .where(and(eq(record.id, recordId), eq(record.version, form.version)))
      .returning()
    if (!changed) throw stale(changesBetween(before, phonesBefore, { ...before, ...values }, form.phones, await customFieldsOf(before.module), await companyNames(before, values)), before.version)
    const phonesAfter = await savePhones(recordId, phonesBefore, form.phones, form.country)
    await logChanges(asker, changed, changesBetween(before, phonesBefore, changed, phonesAfter, await customFieldsOf(before.module), await companyNames(before, changed)), now)
    announce({ kind: 'record', recordId }, 'record.see', [changed])
  })
}

async function logChanges(asker: SignedIn, { id }: StoredRecord, changes: Change[], now: Date): Promise<void> {
  const stage = changes.find(change => change.field === 'stage')
  const others = changes.filter(change => change !== stage)
  if (stage) await appendEntry({ id: uuid(), at: now, kind: 'stage-changed', colleagueId: asker.id, data: { from: stage.from, to: stage.to } }, [id])
  if (others.length > 0) await appendEntry({ id: uuid(), at: now, kind: 'fields-changed', colleagueId: asker.id, content: { changes: others } }, [id])
}

/** The edit was made on an older version: nothing is taken over, and both values are told. */
function stale(differences: Change[], version: number) {
  return conflict('stale', 'Changed meanwhile', 'Somebody else has changed this record since you opened it. Look at both values and save again.', {
    version,
    differences: differences.map(({ label, from, to }) => ({ label, theirs: from, mine: to })),
  })
}

async function companyNames(...records: { companyId: string | null }[]): Promise<Map<string, string>> {
  const ids = records.flatMap(one => one.companyId ?? [])
  const rows = ids.length > 0 ? await tx(database => database.select({ id: record.id, name: record.name }).from(record).where(inArray(record.id, ids))) : []
  return new Map(rows.map(row => [row.id, row.name]))
}

async function columnsOf(asker: SignedIn, form: RecordForm, module: Module) {
  const { firstName, lastName, title, companyId, stage, street, city, region, postcode, country, zone, mail, tags } = form
  const person = isPersonModule(module)
  const name = person ? [firstName, lastName].filter(Boolean).join(' ') : form.name
  if (!name) throw badInput(person ? { firstName: 'Give a first or a last name.' } : { name: 'Give the company’s name.' })
  const stages = MODULE_FACTS[module].stages
  if (stage && !stages.includes(stage)) throw badInput({ stage: `${MODULE_FACTS[module].many} have no stage “${stage}”. Choose one of ${stages.join(', ')}.` })
  if (zone && !zoneRules(zone)) throw badInput({ zone: `“${zone}” is not a time zone. Write one such as America/Denver.` })
  if (companyId) await mustBeCompany(asker, companyId)
  const fields = await readOwnFields(module, form.fields, country ?? undefined)
  return { firstName, lastName, name, title, companyId, stage, street, city, region, postcode, country, zone, mail, tags, fields }
}

/** @throws Problem 422 at each field whose value is not of its kind */
async function readOwnFields(module: Module, given: Record<string, unknown>, country?: string): Promise<Record<string, unknown>> {
  const problems: Record<string, string> = {}
  const fields: Record<string, unknown> = {}
  for (const field of await customFieldsOf(module)) {
    const key = field.path.slice('person.'.length)
    const reading = readFieldValue(field, given[key], country)
    if (!reading.ok) problems[`fields.${key}`] = reading.reason
    else if (reading.value !== null) fields[key] = reading.value
  }
  if (Object.keys(problems).length > 0) throw badInput(problems)
  return fields
}

/** What a record holds in fields that are asked for no more stays as it is. */
async function retiredValues({ module, fields }: StoredRecord): Promise<Record<string, unknown>> {
  const known = new Set((await customFieldsOf(module)).map(field => field.path.slice('person.'.length)))
  return Object.fromEntries(Object.entries(fields).filter(([key]) => !known.has(key)))
}

async function mustBeCompany(asker: SignedIn, companyId: string): Promise<void> {
  const [company] = await tx(database => database.select().from(record).where(eq(record.id, companyId)))
  if (!company || company.module !== 'company' || !can(asker, 'record.see', company)) throw badInput({ companyId: 'There is no such company. Choose one from the list.' })
}

/** Keeps rows whose words did not change, so that what hangs on them stays. */
async function savePhones(recordId: string, before: StoredPhone[], forms: PhoneForm[], recordCountry: string | null): Promise<StoredPhone[]> {
  return tx(async (database) => {
    const [{ country: firmCountry } = { country: 'US' }] = await database.select({ country: firm.country }).from(firm)
    const kept = forms.flatMap(form => form.id ?? [])
    const gone = before.filter(row => !kept.includes(row.id)).map(row => row.id)
    if (gone.length > 0) await database.delete(phone).where(inArray(phone.id, gone))
    const rows: StoredPhone[] = []
    for (const [position, { id, label, typed }] of forms.entries()) {
      const old = before.find(row => row.id === id)
      const reading = old?.typed === typed && !old.unusable ? old : storedPhone(typed, recordCountry ?? firmCountry)
      const row = { ...reading, id: old?.id ?? uuid(), recordId, position, label }
      await database.insert(phone).values(row).onConflictDoUpdate({ target: phone.id, set: row })
      rows.push(row)
    }
    const heldBefore = new Set(before.map(row => row.e164))
    for (const { e164 } of rows) if (e164 && !heldBefore.has(e164)) await adoptConversations(e164, recordId)
    return rows
  })
}
