import type { OwedFor } from '../core/owed/owed'
import type { Module } from './modules'
import type { TimelineEntry } from './timeline'

/** What the inbox can be narrowed to; several are all asked for. */
export const INBOX_FILTERS = ['owed', 'unseen', 'mine', 'unassigned', 'no-record', 'sent', 'received', 'scheduled', 'failed', 'put-back'] as const
export type InboxFilter = typeof INBOX_FILTERS[number]

/** The texts as such, by what became of them. */
export const TEXT_SHELVES = ['received', 'sent', 'scheduled', 'held', 'failed'] as const
export type TextShelf = typeof TEXT_SHELVES[number]

/** A text with whom it is with, by name where they are on a record that I may see. */
export interface InboxText { entry: TimelineEntry, name: string | null, remote: string }
export interface InboxTexts { texts: InboxText[], more: boolean }

/** A conversation as the inbox lists it. Instants are epoch milliseconds. */
export interface InboxItem {
  conversationId: string
  /** Whose it is: the first record that holds the number, of those that I may see; null for a number on none. */
  record: { id: string, name: string, module: Module } | null
  /** How many records hold the number. */
  holders: number
  remote: string
  lineId: string
  line: string
  lastAt: number
  /** The newest text or call, and whether it was ours. The state of a call: missed, voicemail, talked or tried. */
  last: { kind: 'text' | 'call', words: string, ours: boolean, by: string | null, state: string } | null
  waitsSince: number | null
  waitsFor: OwedFor | null
  /** Which bulk text they have answered, where that is what waits. */
  answersTo: string | null
  returnsAt: number | null
  /** Who has it, where it was handed to somebody. */
  assignee: { id: string, firstName: string } | null
  /** Whose an answer is to give: mine, nobody's yet, a colleague's. */
  whose: 'me' | 'nobody' | 'colleague'
  /** Whether something came in that I have not seen. */
  unseen: boolean
}

/** Where in the inbox a page ends: when the newest text of a conversation was, epoch milliseconds, and its id. */
export interface InboxPlace { at: number, id: string }

/**
 * Those that wait for an answer, the longest waiting first; and the others, the newest first. Where the next page goes on: further back
 * than the last one shown, where few of those that were looked through belong here; null at the end.
 */
export interface InboxPage { owed: InboxItem[], others: InboxItem[], next: InboxPlace | null }

/** What the inbox is narrowed to: filters with commas between, a line, a kind of record, words. Empty or null: all. */
export interface InboxAsked { show: string, line: string | null, module: string, words: string }

/** The inbox as somebody has saved it, for themselves or for their team. */
export interface InboxView { id: string, name: string, asked: InboxAsked, shared: boolean, owner: string, mayEdit: boolean }
