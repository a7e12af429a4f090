import type { CallFacts } from '../core/call/facts'
import type { Family } from '../core/call/family'
import type { TransferState, TransferWay } from '../core/call/transfer'
import type { Effect } from '../core/effects/effects'
import type { ZoneRules } from '../core/hours/rules'
import type { WallMoment } from '../core/hours/schedule'
import type { EffectDone, EffectPreview } from './effects'
import type { Module, PersonModule } from './modules'

/** With what a colleague calls: in the browser, or with telephones of their own, which ring first. */
export const CALLS_WITH = ['browser', 'own-phones'] as const
export type CallsWith = typeof CALLS_WITH[number]

/** Of a disposition's key; by their names among the roles of the looks. */
export const DISPOSITION_COLOURS = ['accent', 'good', 'waiting', 'calm', 'wrong', 'plain'] as const
export type DispositionColour = typeof DISPOSITION_COLOURS[number]

/** How I call. */
export interface HowICall { callsWith: CallsWith, phones: { e164: string, label: string }[] }

/** A call that is being handed to a colleague. */
export interface Transfer {
  id: string
  way: TransferWay
  state: TransferState
  from: { id: string, firstName: string }
  to: { id: string, firstName: string }
  /** Whether it is handed to me. */
  toMe: boolean
}

/** A colleague to whom a call can be handed. */
export interface TransferTo { id: string, name: string, title: string, /** Why not now. */ busy: 'on-a-call' | null }

/** What is said on a mailbox, in writing. */
export interface SpokenWords { name: string, words: string }

/** What can be left on a mailbox. */
export interface SpokenMessage extends SpokenWords {
  id: string
  ms: number
  peaks: number[]
  team: { id: string, name: string } | null
  owner: { id: string, firstName: string }
  mayEdit: boolean
}

/** What was recorded of a call. */
export interface CallRecording {
  id: string
  of: 'call' | 'message'
  ms: number
  /** Its shape, each from 0 to 1. */
  peaks: number[]
  /** Who had the talk, or had it before they handed it on; null where nobody of us has. */
  had: { id: string, firstName: string }[] | null
  marks: { id: string, atMs: number, words: string, colleague: string }[]
}

/** My calls, and what time it is on the server. */
export interface CallShelf { calls: CallDetail[], now: number }

/** A call as it lies on the shelf. */
export interface CallDetail {
  id: string
  activityId: string
  direction: 'out' | 'in'
  remote: string
  line: { id: string, name: string, ringSound: RingSound }
  /** Null for a number on none, or on none that I may see. */
  record: {
    id: string
    name: string
    firstName: string
    module: Module
    title: string | null
    company: string | null
    city: string | null
  } | null
  /** Who else has the number, of a call that came in: it may be one of them. */
  alsoOf: { id: string, name: string }[]
  facts: CallFacts
  /** Whether I am the one who calls or has answered. */
  mine: boolean
  /** The round in which it was made. */
  roundId: string | null
  notes: string
  /** Of those who had it before it was transferred. */
  othersNotes: { firstName: string, words: string }[]
  recording: CallRecording | null
  /** How it went, once a key was pressed. */
  disposition: { name: string, at: number } | null
  rating: number | null
  /** While it is being handed to a colleague. */
  transfer: Transfer | null
  /** What is being left, or was, on a mailbox. */
  spoken: string | null
  zones: ZoneRules[]
  /** What was said last before, to know it while it rings. */
  lastSaid: { at: number, words: string, ours: boolean } | null
}

export interface DispositionPreview {
  id: string
  name: string
  letter: string
  colour: DispositionColour
  family: Family
  effects: EffectPreview[]
}

export interface Disposed { name: string, effects: EffectDone[] }

/** A call on the timeline. */
export interface TimelineCall {
  id: string
  /** The number of the other side (E.164). */
  remote: string
  /** The name of ours. */
  line: string
  colleagueId: string | null
  facts: CallFacts
  disposition: { name: string, colour: DispositionColour } | null
  rating: number | null
  /** From whom to whom it was handed, in order. */
  transfers: { from: string, to: string, at: number }[]
  spoken: SpokenWords | null
  effects: EffectDone[]
  recording: CallRecording | null
}

/** How a line rings in the browser, so that one hears which it is. */
export const RING_SOUNDS = ['quick', 'low', 'bell'] as const
export type RingSound = typeof RING_SOUNDS[number]

export interface OwnDisposition {
  id: string
  name: string
  letter: string
  colour: DispositionColour
  family: Family
  effects: Effect[]
  onlyLineId: string | null
  onlyRoundId: string | null
  /** The line or the round whose calls it is for; null: all calls. */
  purpose: string | null
  retired: boolean
  /** What each effect is, in a few words. */
  words: string[]
}

export interface TaskDetail extends WallMoment {
  id: string
  kind: 'task' | 'call-back'
  title: string
  dueAt: number
  doneAt: number | null
  owner: { id: string, firstName: string }
  record: { id: string, name: string, module: Module }
}

/** Modules whose people are called. */
export const DISPOSITION_MODULES: readonly PersonModule[] = ['lead', 'client', 'candidate']
