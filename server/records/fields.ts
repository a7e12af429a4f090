import { eq, isNull, sql } from 'drizzle-orm'
import { fieldKey } from '~~/core/fields/key'
import type { Field } from '~~/core/template/fields'
import { asField, builtInFields, fieldsOf, keyOf, type ModuleField } from '~~/shared/fields'
import { MODULE_FACTS, MODULES, type Module } from '~~/shared/modules'
import type { FieldForm } from '~~/shared/schemas/field'
import type { OwnField } from '~~/shared/set-up'
import { can } from '~~/shared/permissions'
import { read, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { customField } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { holdersOf, usersOf } from './field-uses'

type StoredField = typeof customField.$inferSelect

const MOST = 80

/** What records keep among their `fields`, of all modules: what Plauder knows, then what the firm has added and still uses. */
export async function ownFields(): Promise<ModuleField[]> {
  const added = await read(database =>
    database.select().from(customField).where(isNull(customField.retiredAt)).orderBy(customField.position),
  )
  return [...MODULES.flatMap(builtInFields), ...added]
}

/** The same of one module, as entries of its catalogue. */
export async function customFieldsOf(module: Module): Promise<Field[]> {
  return (await ownFields()).filter(field => field.module === module).map(asField)
}

/** Every field of a module that the firm has added, the retired ones last. */
export async function listFields(module: Module): Promise<OwnField[]> {
  const rows = await read(database =>
    database
      .select()
      .from(customField)
      .where(eq(customField.module, module))
      .orderBy(sql`${customField.retiredAt} is not null`, customField.position),
  )
  return rows.map(({ id, key, label, kind, example, options, retiredAt }) => ({
    id,
    key,
    label,
    kind,
    example,
    options,
    retired: retiredAt !== null,
  }))
}

export async function addField(asker: SignedIn, form: FieldForm, now: Date): Promise<OwnField[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const there = await database.select().from(customField).where(eq(customField.module, form.module)).for('update')
    if (there.some(field => field.id === form.id)) return listFields(form.module)
    if (there.length >= MOST) throw badInput({ label: `A module holds ${MOST} fields at most. Retire one that nobody uses.` })
    mustBeNew(form, there)
    const key = fieldKey(form.label, [...there.map(field => field.key), ...fieldsOf(form.module, builtInFields(form.module)).map(keyOf)])
    await database.insert(customField).values({ ...form, key, position: there.length })
    await note('field-made', asker.id, now, { module: form.module, key, label: form.label, kind: form.kind })
    return listFields(form.module)
  })
}

/** Changes what a field is called, its example and its choices. Its kind stays: what records hold fits it. */
export async function changeField(asker: SignedIn, id: string, form: FieldForm, now: Date): Promise<OwnField[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const field = await heldField(id)
    const others = (await database.select().from(customField).where(eq(customField.module, field.module))).filter(one => one.id !== id)
    mustBeNew(form, others)
    if (form.kind !== field.kind)
      throw badInput({ kind: 'The kind of a field stays as it was made. Make a new field, and retire this one.' })
    const { label, example, options } = form
    await mustNotBeHeld(field, options)
    await database.update(customField).set({ label, example, options }).where(eq(customField.id, id))
    await note('field-changed', asker.id, now, { module: field.module, key: field.key, from: field.label, to: label })
    return listFields(field.module)
  })
}

/** Puts the fields of a module into the order of these ids. */
export async function orderFields(asker: SignedIn, module: Module, ids: string[], now: Date): Promise<OwnField[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    await database.execute(sql`
      update ${customField} f set position = o.place from unnest(${uuidArray(ids)}) with ordinality o (id, place)
      where f.id = o.id and f.module = ${module}`)
    await note('fields-ordered', asker.id, now, { module })
    return listFields(module)
  })
}

/**
 * Takes a field out of forms, lists, filters and templates. What records hold in it stays, and is there
 * again when it is taken up again.
 *
 * @throws Problem 409 that names the templates, kept lists and dispositions which use it
 */
export async function retireField(asker: SignedIn, id: string, now: Date): Promise<OwnField[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const field = await heldField(id)
    const users = await usersOf(field)
    if (users.length > 0)
      throw conflict(
        'in-use',
        'Still in use',
        `${users.join(', ')} ${users.length === 1 ? 'uses' : 'use'} “${field.label}”. Take it out there first.`,
      )
    await database.update(customField).set({ retiredAt: now }).where(eq(customField.id, id))
    await note('field-retired', asker.id, now, { module: field.module, key: field.key })
    return listFields(field.module)
  })
}

export async function takeUpField(asker: SignedIn, id: string, now: Date): Promise<OwnField[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const field = await heldField(id)
    await database.update(customField).set({ retiredAt: null }).where(eq(customField.id, id))
    await note('field-taken-up', asker.id, now, { module: field.module, key: field.key })
    return listFields(field.module)
  })
}

/** @throws Problem 422 where a choice that is taken away is still held or asked for: it would be none that can be chosen */
async function mustNotBeHeld(field: StoredField, options: string[]): Promise<void> {
  for (const choice of field.options.filter(one => !options.includes(one))) {
    const holders = await holdersOf(field, choice)
    const { one, many } = MODULE_FACTS[field.module]
    if (holders > 0)
      throw badInput({
        options: `${holders.toLocaleString('en-US')} ${(holders === 1 ? one : many).toLowerCase()} still ${holders === 1 ? 'has' : 'have'} “${choice}”. Choose them in their list by ${field.label}, change it for all of them there, and take it away then.`,
      })
    const users = await usersOf(field, choice)
    if (users.length > 0)
      throw badInput({ options: `${users.join(', ')} ${users.length === 1 ? 'asks' : 'ask'} for “${choice}”. Take it out there first.` })
  }
}

async function heldField(id: string): Promise<StoredField> {
  const [field] = await tx(database => database.select().from(customField).where(eq(customField.id, id)).for('update'))
  if (!field) throw notFound('field')
  return field
}

function mustBeNew({ label, module }: FieldForm, others: StoredField[]): void {
  const taken = [...others.map(field => field.label), ...fieldsOf(module, builtInFields(module)).map(field => field.label)]
  if (taken.some(one => one.toLowerCase() === label.toLowerCase()))
    throw badInput({ label: `There is a field “${label}” already. Give this one another name.` })
}

function mustAdminister(asker: SignedIn): void {
  if (!can(asker, 'field.edit', {})) throw notAllowed('change the fields of records; an admin does')
}
