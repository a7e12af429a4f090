import type { KnockKind, KnockStep } from '../core/knock/kinds'
import type { Module } from './modules'

/** Something that calls for action at once, as it is with me. */
export interface Knock {
  id: string
  kind: KnockKind
  /** When it happened last, and how often. */
  at: number
  times: number
  words: string
  /** With whom I got it: as theirs whose it is, as a stand-in, as a lead. */
  step: KnockStep
  seen: boolean
  /** `settled` is what somebody has seen to without taking it. */
  state: 'open' | 'taken' | 'settled'
  takenBy: { id: string, firstName: string } | null
  endedAt: number | null
  record: { id: string, name: string, module: Module } | null
  conversationId: string | null
  taskId: string | null
  /** Since when they wait, where it is about a conversation. */
  waitsSince: number | null
  /** Who has the conversation. */
  assignee: string | null
  line: string | null
  remote: string | null
  /** What is called to reach them. */
  phoneId: string | null
}

/** What is open first, then what was taken or settled within the last day; the newest first in both. */
export interface Knocks { knocks: Knock[] }
