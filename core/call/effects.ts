export type FieldValue = string | number | boolean | null

/** What a disposition sets off, as its maker wrote it down. */
export type Effect
  = | { kind: 'text', templateId: string }
    | { kind: 'stage', stage: string }
    | { kind: 'add-tag', tag: string }
    | { kind: 'remove-tag', tag: string }
    /** One of the record's own fields; without a value it asks for it. */
    | { kind: 'field', field: string, value: FieldValue }
    /** Due so many days later at that time where the person is. */
    | { kind: 'task', title: string, days: number, time: string }
    /** The same, for a call; without days it asks for the day. */
    | { kind: 'call-back', days: number | null, time: string }
    | { kind: 'wrong-number' }
    | { kind: 'no-calls' }

export type EffectKind = Effect['kind']

/** Where an effect of one call stands. */
export type EffectState = 'done' | 'failed' | 'left-out' | 'taken-back' | 'stays'

/** Which states may follow which: what was done can be taken back, or can no more; nothing else ever changes. */
const AFTER: Record<EffectState, readonly EffectState[]> = {
  'done': ['taken-back', 'stays'],
  'failed': [],
  'left-out': [],
  'taken-back': [],
  'stays': [],
}

export const mayFollow = (from: EffectState, to: EffectState): boolean => AFTER[from].includes(to)

/** What a call-back is called among the things to do. */
export const CALL_BACK_TITLE = 'Call back'

/** What an effect is, in a few words: on its key, and afterwards on the timeline. */
export function sayEffect(effect: Effect, { template, due, field }: { template?: string, due?: string, field?: string }): string {
  switch (effect.kind) {
    case 'text': return `Text “${template ?? 'of a template that is gone'}”`
    case 'stage': return `Stage to ${effect.stage}`
    case 'add-tag': return `Tag ${effect.tag}`
    case 'remove-tag': return `Take the tag ${effect.tag} off`
    case 'field': return `${field ?? 'A field that is gone'} ${effect.value === null ? 'as you say' : `to ${sayValue(effect.value)}`}`
    case 'task': return `Task “${effect.title}”${due ? `, ${due}` : ''}`
    case 'call-back': return due ? `Call back ${due}` : 'Call back, on a day you say'
    case 'wrong-number': return 'The number is somebody else’s'
    case 'no-calls': return 'No calls any more'
  }
}

export const sayValue = (value: FieldValue): string => value === null ? 'nothing' : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)

/** A family of dispositions: whether somebody was spoken to. */
export type Family = 'reached' | 'not-reached'

/** The family that a call's outcome suggests first. */
export const familyOf = (outcome: string | null): Family => outcome === 'answered' ? 'reached' : 'not-reached'
