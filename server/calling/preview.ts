import { valueIn } from '~~/core/fields/own'
import { and, asc, eq, isNull } from 'drizzle-orm'
import { dueIn } from '~~/core/call/due'
import { sayEffect, type Effect } from '~~/core/call/effects'
import { sayWallMoment } from '~~/core/hours/say'
import { zoneRules } from '~~/core/hours/zones'
import type { Field } from '~~/core/template/fields'
import type { DispositionPreview, EffectPreview } from '~~/shared/calling'
import { keyOf } from '~~/shared/fields'
import { isPersonModule, type PersonModule } from '~~/shared/modules'
import type { FilledTemplate } from '~~/shared/template'
import { tx } from '../db/door'
import { disposition } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { customFieldsOf } from '../records/fields'
import { mustHold, type StoredRecord } from '../records/one'
import { fillForRecord } from '../templates/fill'
import { mustBeMyCall, type StoredCall } from './stored'
import { NO_TARGET, textTarget, type TextTarget } from './text-target'
import { zoneOfRecord } from './tasks'

/** What decides on effects for one person: of templates and fields, those that the effects name. */
interface Facts { record: StoredRecord, fields: Field[], templates: FilledTemplate[], target: TextTarget, zone: string, now: Date }

/** Every key that a call can be ended with, with what each would do for this person. None for a number on no record. */
export async function previewDispositions(asker: SignedIn, callId: string, now: Date): Promise<DispositionPreview[]> {
  return tx(async (database) => {
    const call = await mustBeMyCall(asker, callId)
    const record = await personOf(asker, call)
    if (!record) return []
    const rows = await database.select().from(disposition).where(and(eq(disposition.module, record.module), isNull(disposition.retiredAt))).orderBy(asc(disposition.position))
    const facts = await factsFor(asker, call, record, rows.flatMap(({ effects }) => effects), now)
    return rows.map(({ id, name, letter, colour, family, effects }) => ({ id, name, letter, colour, family, effects: effects.map((effect, position) => previewOf(effect, position, facts)) }))
  })
}

/** The person a call was with; null for one on no record. */
export async function personOf(asker: SignedIn, call: StoredCall): Promise<StoredRecord & { module: PersonModule } | null> {
  const record = call.recordId ? await mustHold(asker, 'record.see', call.recordId) : null
  return record && isPersonModule(record.module) ? { ...record, module: record.module } : null
}

export async function factsFor(asker: SignedIn, call: StoredCall, record: StoredRecord, effects: Effect[], now: Date): Promise<Facts> {
  const templateIds = effects.flatMap(effect => effect.kind === 'text' ? [effect.templateId] : [])
  const templates = templateIds.length > 0 ? (await fillForRecord(asker, record.id, { aboutId: null, ref: null }, templateIds)).templates : []
  const target = templateIds.length > 0 ? await textTarget(asker, call) : NO_TARGET
  const fields = effects.some(({ kind }) => kind === 'field') ? await customFieldsOf(record.module) : []
  return { record, fields, templates, target, zone: await zoneOfRecord(asker, record.id), now }
}

export function previewOf(effect: Effect, position: number, facts: Facts): EffectPreview {
  const template = effect.kind === 'text' ? facts.templates.find(({ id }) => id === effect.templateId) : undefined
  const field = effect.kind === 'field' ? facts.fields.find(one => keyOf(one) === effect.field) : undefined
  const due = (effect.kind === 'task' || effect.kind === 'call-back') && effect.days !== null ? dueIn(facts.now.getTime(), effect.days, effect.time, zoneRules(facts.zone)!) : null
  return {
    position,
    effect,
    words: sayEffect(effect, { template: template?.name, field: field?.label, due: due ? sayWallMoment(due, facts.now.getUTCFullYear()) : undefined }),
    text: template ? { name: template.name, text: template.text, missing: template.missing, fillIns: template.fillIns, line: facts.target.lineName ?? '', to: facts.target.e164 ?? '' } : null,
    due: due && { wallTime: due.wallTime, zone: due.zone },
    field: field ?? null,
    problem: problemOf(effect, template, field, facts),
  }
}

/** Why an effect will not work, as far as that can be known before. */
function problemOf(effect: Effect, template: FilledTemplate | undefined, field: Field | undefined, { record, target }: Facts): string | null {
  switch (effect.kind) {
    case 'text':
      if (!template) return 'Its template is gone.'
      if (target.problem) return target.problem
      return template.text === null ? `Missing: ${template.missing.join(', ')}.` : null
    case 'field':
      if (!field) return 'The field is gone.'
      return effect.value !== null && (valueIn(record.fields, effect.field) ?? null) === effect.value ? 'It says so already.' : null
    case 'add-tag': return record.tags.includes(effect.tag) ? 'It has this tag already.' : null
    case 'remove-tag': return record.tags.includes(effect.tag) ? null : 'It does not have this tag.'
    case 'stage': return record.stage === effect.stage ? 'It stands there already.' : null
    default: return null
  }
}
