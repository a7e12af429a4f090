import type { OwedFor } from '../core/owed/owed'
import type { Module } from './modules'

/** What came in for me: a text, a call that nobody took, a conversation that was assigned to me. */
export interface PastNotice {
  /** Of the entry that it tells of. */
  id: string
  kind: Extract<OwedFor, 'text' | 'missed-call' | 'voicemail' | 'handed'>
  at: number
  conversationId: string
  record: { id: string, name: string, module: Module } | null
  holders: number
  remote: string
  line: string
  /** What was written, or noted with it. */
  words: string
  /** Who has assigned it. */
  by: string | null
  unseen: boolean
  /** Whether its conversation still waits for an answer. */
  waits: boolean
}

/** The newest first, and whether there were more than anybody looks over. */
export interface PastNotices { notices: PastNotice[], more: boolean }
