import { and, asc, eq, isNull, max, sql } from 'drizzle-orm'
import { sayEffect, type Effect, type FieldValue } from '~~/core/call/effects'
import { readFieldValue } from '~~/core/fields/value'
import type { Field } from '~~/core/template/fields'
import type { OwnDisposition } from '~~/shared/calling'
import { keyOf } from '~~/shared/fields'
import { can } from '~~/shared/permissions'
import type { PersonModule } from '~~/shared/modules'
import { readEffect, type DispositionForm } from '~~/shared/schemas/disposition'
import { tx } from '../db/door'
import { disposition, template } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { customFieldsOf } from '../records/fields'
import { allStages } from '../records/stages'

/** A module's dispositions in their order, those that are retired last. */
export async function listDispositions(asker: SignedIn, module: PersonModule): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const rows = await database.select().from(disposition).where(eq(disposition.module, module)).orderBy(sql`${disposition.retiredAt} is not null`, asc(disposition.position), disposition.id)
    const names = new Map((await database.select({ id: template.id, name: template.name }).from(template)).map(one => [one.id, one.name]))
    const fields = await customFieldsOf(module)
    return rows.map(({ id, name, letter, colour, family, effects, retiredAt }) => ({
      id, name, letter, colour, family, effects, retired: retiredAt !== null,
      words: effects.map(effect => sayEffect(effect, { template: effect.kind === 'text' ? names.get(effect.templateId) : undefined, field: effect.kind === 'field' ? fields.find(one => keyOf(one) === effect.field)?.label : undefined, due: dueWords(effect) })),
    }))
  })
}

/** "in 3 days at 10:00": as long as it is not about anybody. */
function dueWords(effect: Effect): string | undefined {
  if ((effect.kind !== 'task' && effect.kind !== 'call-back') || effect.days === null) return undefined
  const when = effect.days === 0 ? 'the same day' : effect.days === 1 ? 'the next day' : `${effect.days} days later`
  return `${when} at ${effect.time.replace(/^0/, '')}`
}

/**
 * Makes a disposition, or changes one. What calls have set off already stays as it was.
 *
 * @throws Problem 422 at what does not fit: a letter that another one has, a template or a stage that the module does not have
 */
export async function saveDisposition(asker: SignedIn, form: DispositionForm, now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const { id, module, name, family, letter, colour } = form
    const [before] = await database.select().from(disposition).where(eq(disposition.id, id))
    if (before && before.module !== module) throw badInput({ name: 'A disposition stays with its module.' })
    const fields = await customFieldsOf(module)
    const effects = form.effects.map(readEffect).map((effect, place) => effect.kind === 'field' ? { ...effect, value: valueFor(place, effect, fields) } : effect)
    const others = (await database.select().from(disposition).where(and(eq(disposition.module, module), isNull(disposition.retiredAt)))).filter(one => one.id !== id)
    const sameLetter = others.find(one => one.letter === letter)
    if (sameLetter) throw badInput({ letter: `“${sameLetter.name}” has this letter. Give this one another.` })
    if (others.some(one => one.name.toLowerCase() === name.toLowerCase())) throw badInput({ name: `There is a disposition “${name}” already. Give this one another name.` })
    await checkEffects(module, effects)
    const [last] = await database.select({ position: max(disposition.position) }).from(disposition).where(eq(disposition.module, module))
    await database.insert(disposition).values({ id, module, name, family, letter, colour, effects, position: (last?.position ?? -1) + 1 })
      .onConflictDoUpdate({ target: disposition.id, set: { name, family, letter, colour, effects } })
    await note(before ? 'disposition-changed' : 'disposition-made', asker.id, now, { module, name, effects: effects.map(effect => effect.kind).join(', ') })
    return listDispositions(asker, module)
  })
}

async function checkEffects(module: PersonModule, effects: Effect[]): Promise<void> {
  const stages = await allStages(module)
  for (const [place, effect] of effects.entries()) {
    if (effect.kind === 'stage' && !stages.includes(effect.stage)) throw badInput({ [`effects[${place}].stage`]: `There is no stage “${effect.stage}” here. Choose one of ${stages.join(', ')}.` })
    if (effect.kind !== 'text') continue
    const [found] = await tx(database => database.select().from(template).where(and(eq(template.id, effect.templateId), isNull(template.retiredAt))))
    if (!found || found.audience === 'mine') throw badInput({ [`effects[${place}].templateId`]: 'This template is not there for everybody. Choose another one, or share it first.' })
    if (!found.modules.includes(module)) throw badInput({ [`effects[${place}].templateId`]: `“${found.name}” does not belong to this module. Choose another one, or add the module to it.` })
  }
  const kinds = effects.map(({ kind }) => kind)
  for (const kind of ['text', 'stage', 'wrong-number', 'no-calls'] as const) {
    const place = kinds.lastIndexOf(kind)
    if (kinds.indexOf(kind) !== place) throw badInput({ [`effects[${place}]`]: 'It does this already. Once is enough.' })
  }
}

/** The value as the field keeps it; none asks for it on the call. */
function valueFor(place: number, { field: key, value }: Extract<Effect, { kind: 'field' }>, fields: Field[]): FieldValue {
  const field = fields.find(one => keyOf(one) === key)
  if (!field) throw badInput({ [`effects[${place}].field`]: 'There is no such field here. Choose one from the list.' })
  const reading = readFieldValue(field, value)
  if (!reading.ok) throw badInput({ [`effects[${place}].value`]: reading.reason })
  return reading.value
}

export async function orderDispositions(asker: SignedIn, module: PersonModule, ids: string[], now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    for (const [position, id] of ids.entries()) await database.update(disposition).set({ position }).where(and(eq(disposition.id, id), eq(disposition.module, module)))
    await note('dispositions-ordered', asker.id, now, { module })
    return listDispositions(asker, module)
  })
}

/** @throws Problem 409 when its letter has gone to another one meanwhile */
export async function retireDisposition(asker: SignedIn, id: string, retired: boolean, now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const [found] = await database.select().from(disposition).where(eq(disposition.id, id)).for('update')
    if (!found) throw notFound('disposition')
    const [holder] = retired ? [] : await database.select().from(disposition).where(and(eq(disposition.module, found.module), eq(disposition.letter, found.letter), isNull(disposition.retiredAt)))
    if (holder && holder.id !== id) throw conflict('letter-taken', 'Its letter is taken', `“${holder.name}” has the letter ${found.letter.toUpperCase()} now. Give that one another letter first.`)
    await database.update(disposition).set({ retiredAt: retired ? now : null }).where(eq(disposition.id, id))
    await note(retired ? 'disposition-retired' : 'disposition-taken-up', asker.id, now, { module: found.module, name: found.name })
    return listDispositions(asker, found.module)
  })
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'disposition.edit', {})) throw notAllowed('change dispositions; leads and admins do')
}
