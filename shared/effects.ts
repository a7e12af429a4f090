import type { Effect, EffectState } from '../core/effects/effects'
import type { WallMoment } from '../core/hours/schedule'
import type { FillIn } from '../core/template/fill-ins'
import type { Field } from '../core/template/fields'

/** One thing that would happen to a person. */
export interface EffectPreview {
  position: number
  effect: Effect
  words: string
  /** The text, filled for this person; null for other effects. */
  text: { name: string, text: string | null, missing: string[], fillIns: FillIn[], line: string, to: string } | null
  /** When a task or a call-back would be due; null where it asks. */
  due: WallMoment | null
  /** The field that is set, as it is asked for; null for other effects. */
  field: Field | null
  /** Why it will not work, if that is known. */
  problem: string | null
}

/** What is said of an effect before it happens. */
export interface EffectSaid {
  /** The text as it was changed by hand. */
  text: string | null
  answers: Record<string, string>
  /** The day and the time of a task or a call-back. */
  day: string | null
  time: string | null
}

/** What one effect has done. */
export interface EffectDone { position: number, words: string, state: EffectState, reason: string | null }
