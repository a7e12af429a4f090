import type { Effect, EffectKind } from '~~/core/effects/effects'
import type { EffectWork } from './effect'
import { field } from './field'
import { addGroup, removeGroup } from './group'
import { noCalls } from './no-calls'
import { stage } from './stage'
import { addTag, removeTag } from './tag'
import { callBack, task } from './task'
import { text } from './text'
import { wrongNumber } from './wrong-number'

/** What an effect knows and keeps is its own business. */
type Work<K extends EffectKind> = EffectWork<K, unknown, object>

/** Who does the work of each kind of effect. */
const EFFECTS: { [K in EffectKind]: Work<K> } = {
  'text': text,
  'stage': stage,
  'add-tag': addTag,
  'remove-tag': removeTag,
  'add-group': addGroup,
  'remove-group': removeGroup,
  'field': field,
  'task': task,
  'call-back': callBack,
  'wrong-number': wrongNumber,
  'no-calls': noCalls,
}

export const EFFECT_KINDS = Object.keys(EFFECTS) as EffectKind[]

/** The work of a kind that is known only when it runs: it takes effects of its own kind and of no other. */
export const workOf = (kind: EffectKind) => EFFECTS[kind] as unknown as Work<EffectKind>

export const ofKind = (effects: Effect[], kind: EffectKind): Effect[] => effects.filter(one => one.kind === kind)
