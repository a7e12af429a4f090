import { sayFieldValue, type FieldValue } from '../fields/value'
import { isTimeOfDay } from '../hours/format'
import { markTime } from '../hours/say'

/** What each kind of effect needs to be said when it is set up. */
interface Settings {
  'text': { templateId: string }
  'stage': { stageId: string }
  'add-tag': { tag: string }
  'remove-tag': { tag: string }
  'add-group': { groupId: string }
  'remove-group': { groupId: string }
  /** One of the record's own fields; without a value it asks for it. */
  'field': { field: string, value: FieldValue }
  /** Due so many days later at that time where the person is. */
  'task': { title: string, days: number, time: string }
  /** The same, for a call; without days it asks for the day. */
  'call-back': { days: number | null, time: string }
  'wrong-number': object
  'no-calls': object
}

export type EffectKind = keyof Settings

export type EffectOf<K extends EffectKind> = K extends EffectKind ? { kind: K } & Settings[K] : never

/** Something that happens to a record because of something else, such as how a call went. */
export type Effect = EffectOf<EffectKind>

/** What an effect names, in words; what is left out is gone, or is not known yet. */
interface Names { template?: string, stage?: string, group?: string, field?: string, due?: string }

const SAID: { [K in EffectKind]: (effect: EffectOf<K>, names: Names) => string } = {
  'text': (_, { template }) => `Text “${template ?? 'of a template that is gone'}”`,
  'stage': (_, { stage }) => `Stage to ${stage ?? 'one that is gone'}`,
  'add-tag': ({ tag }) => `Tag ${tag}`,
  'remove-tag': ({ tag }) => `Take the tag ${tag} off`,
  'add-group': (_, { group }) => `Into the group ${group ?? 'that is gone'}`,
  'remove-group': (_, { group }) => `Out of the group ${group ?? 'that is gone'}`,
  'field': ({ value }, { field }) => `${field ?? 'A field that is gone'} ${value === null ? 'as you say' : `to ${typeof value === 'string' && isTimeOfDay(value) ? markTime(value) : sayFieldValue(value)}`}`,
  'task': ({ title }, { due }) => `Task “${title}”${due ? `, ${due}` : ''}`,
  'call-back': (_, { due }) => due ? `Call back ${due}` : 'Call back, on a day you say',
  'wrong-number': () => 'The number is somebody else’s',
  'no-calls': () => 'No calls any more',
}

/** What an effect is, in a few words: before it happens, and afterwards on the timeline. */
export const sayEffect = (effect: Effect, names: Names = {}): string =>
  (SAID[effect.kind] as (effect: Effect, names: Names) => string)(effect, names)

/** Where an effect stands. `unchanged`: everything was so already. */
export const EFFECT_STATES = ['done', 'unchanged', 'failed', 'left-out', 'taken-back', 'stays'] as const
export type EffectState = typeof EFFECT_STATES[number]

/** Which states may follow which: what was done can be taken back, or can no more; nothing else ever changes. */
const AFTER: Record<EffectState, readonly EffectState[]> = {
  'done': ['taken-back', 'stays'],
  'unchanged': [],
  'failed': [],
  'left-out': [],
  'taken-back': [],
  'stays': [],
}

export const mayFollow = (from: EffectState, to: EffectState): boolean => AFTER[from].includes(to)
