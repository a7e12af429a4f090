import type { OwedFor } from '../core/owed/owed'
import type { RecordPhone } from './record'
import type { TimelineEntry } from './timeline'
import type { NationalLanguage } from '../core/text/national'
import type { ZoneRules } from '../core/hours/rules'
import type { Module } from './modules'

/** A conversation that waits for an answer of ours. */
export interface ShelfItem {
  conversationId: string
  /** Whose it is: the first record that holds the number; null for a number on none. */
  record: { id: string, name: string, module: Module } | null
  /** How many records hold the number. */
  holders: number
  remote: string
  lineId: string
  line: string
  waitsSince: number
  waitsFor: OwedFor
}

export interface ConversationDetail {
  id: string
  lineId: string
  lineName: string
  /** Whose national tables the line's carrier knows. */
  languages: NationalLanguage[]
  remote: string
  /** Of the number, as far as it tells. */
  country: string | null
  waitsSince: number | null
  /** When it is owed again, because it was put back for then. */
  returnsAt: number | null
  /** Who has it, where it was handed to somebody. */
  assignee: { id: string, firstName: string } | null
  records: { id: string, name: string, firstName: string | null, module: Module, title: string | null, city: string | null }[]
  phone: RecordPhone | null
  optedOut: boolean
  lastHeardAt: number | null
  zones: ZoneRules[]
  zoneNames: string[]
  entries: TimelineEntry[]
}
