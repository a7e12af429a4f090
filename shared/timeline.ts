import type { WallMoment } from '../core/hours/schedule'
import type { ActivityKind } from '../core/timeline/kinds'
import type { MessageKind } from '../core/message/kinds'
import type { MessageState } from '../core/message/states'
import type { TimelineCall } from './calling'
import type { PictureFacts } from './pictures'

/** One entry of a timeline as the interface gives it. Instants are epoch milliseconds. */
export interface TimelineEntry {
  id: string
  at: number
  kind: ActivityKind
  words: string | null
  data: Record<string, unknown>
  colleague: { id: string, firstName: string, name: string } | null
  /** The record it came from, where it shows here because of a link. */
  via: { id: string, name: string } | null
  /** A colleague has shown it here, and may take it off again. */
  byHand: boolean
  /** Whom it was with, where it shows here only because of the same number. */
  meantFor: { /** Null for one whom the reader may not see. */ id: string | null, name: string } | null
  message: TimelineMessage | null
  /** A call that was made with Plauder, as it stands now. */
  call: TimelineCall | null
}

/** What is true of any message. */
export interface AnyMessage {
  id: string
  conversationId: string
  direction: 'out' | 'in'
  state: MessageState | 'received'
  code: string | null
  origin: 'by-hand' | 'disposition' | 'bulk' | 'bulk-answer' | 'automatic' | null
  authorId: string | null
  template: { name: string, version: number } | null
  /** What a colleague calls it. */
  name: string | null
  pictures: PictureFacts[]
  /** Of those that came in, how many are still being fetched. */
  picturesToCome: number
  /** Texts of before there were refs have none. */
  ref: string | null
  /** The moment as it was meant, of one that is to leave later. */
  later: WallMoment | null
  costMicros: number | null
  currency: string | null
  madeAt: number
  leavesAt: number
  handedAt: number | null
  acceptedAt: number | null
  settledAt: number | null
  /** Whether somebody has said what becomes of what it asks for. */
  requestSettled: boolean
  /** A wish in free words to be left alone, and what was decided. */
  proposal: { id: string, decision: 'yes' | 'no' | null } | null
}

/** A text: between a line of ours and a number, in parts of so many units. */
export interface TimelineText extends AnyMessage {
  kind: 'text'
  line: { name: string, e164: string }
  /** The line for which that one stood in, as its carrier could not be reached. */
  meantLine: string | null
  remote: string
  units: number
  parts: number
}

export interface MessageByKind { text: TimelineText }

/** Of every kind of message, one; `kind` says which. */
export type TimelineMessage = MessageByKind[MessageKind]

/** Entries, newest first, and whether there are older and newer ones. */
export interface TimelinePage { entries: TimelineEntry[], more: boolean, newer: boolean }

/** Texts of a timeline in rows, in an order that somebody chose, and how many there are. */
export interface MessagePage { entries: TimelineEntry[], count: number }

/** How many a page of them holds. */
export const MESSAGES_A_PAGE = 50
