import { sayEffect } from '~~/core/effects/effects'
import { valueIn } from '~~/core/fields/own'
import { readFieldValue, type FieldValue } from '~~/core/fields/value'
import type { Field } from '~~/core/template/fields'
import { keyOf } from '~~/shared/fields'
import { customFieldsOf } from '../records/fields'
import { setOwnField } from '../records/set-field'
import { Unfit, unchanged, type EffectWork } from './effect'

interface Kept { field: string, was: FieldValue, value: FieldValue }

const SAYS_SO = 'It says so already.'
const named = (fields: Field[], key: string) => fields.find(one => keyOf(one) === key)

/** What is said of it is its value; without any it is the one that was set up. */
export const field: EffectWork<'field', Field[], Kept> = {
  async check(effect, module) {
    const found = named(await customFieldsOf(module), effect.field)
    if (!found) throw new Unfit({ field: 'There is no such field here. Choose one from the list.' })
    const reading = readFieldValue(found, effect.value)
    if (!reading.ok) throw new Unfit({ value: reading.reason })
    return { ...effect, value: reading.value }
  },

  async describe(_effects, module) {
    const fields = await customFieldsOf(module)
    return effect => sayEffect(effect, { field: named(fields, effect.field)?.label })
  },

  facts: (_effects, { record }) => customFieldsOf(record.module),

  preview(effect, fields, { record }) {
    const found = named(fields, effect.field)
    const isSo = effect.value !== null && (valueIn(record.fields, effect.field) ?? null) === effect.value
    return {
      words: sayEffect(effect, { field: found?.label }),
      field: found ?? null,
      problem: !found ? 'The field is gone.' : isSo ? SAYS_SO : null,
    }
  },

  async perform(effect, said, fields, { asker, record, because }, now) {
    const value = valueOf(effect, said.answers.value ?? effect.value, fields)
    const was = await setOwnField(asker, record.id, effect.field, value, now, { because })
    const words = sayEffect({ ...effect, value }, { field: named(fields, effect.field)?.label })
    return was === value ? { words, ...unchanged(SAYS_SO) } : { words, state: 'done', kept: { field: effect.field, was, value } }
  },

  async undo({ field, was, value }, { asker, record }, now) {
    await setOwnField(asker, record.id, field, was, now, { from: value })
    return null
  },
}

/** What is gone fails by itself, when it is set. */
function valueOf(effect: { field: string }, given: FieldValue, fields: Field[]): FieldValue {
  const found = named(fields, effect.field)
  if (!found) return null
  const reading = readFieldValue(found, given)
  if (!reading.ok) throw new Unfit({ value: `${found.label}: ${reading.reason}` })
  if (reading.value === null) throw new Unfit({ value: `Say what ${found.label} is, or leave this out.` })
  return reading.value
}
