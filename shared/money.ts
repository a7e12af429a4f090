import type { LimitPeriod } from '../core/money/limit'
import type { Purse } from '../core/money/purse'

/** What stands in the ledger: paid in, a text, a month of a line, what put another entry right. */
export const ENTRY_KINDS = ['paid-in', 'text', 'call', 'rent', 'correction'] as const
export type EntryKind = typeof ENTRY_KINDS[number]

/** What is there in one currency, and for how long. */
export interface MoneyAccount extends Purse {
  currency: string
  warnDays: number
  /** What was spent within the last days by which the pace is judged. */
  spentMicros: number
  /** For how many days the rest lasts at that pace; null where nothing is spent. */
  lastsDays: number | null
  /** It runs out sooner than the admins want to be warned. */
  runsOut: boolean
}

/** The most that somebody may spend, or that may be spent from a team's lines, and what of it is spent. */
export interface MoneyLimit {
  id: string
  whose: { colleagueId: string, teamId: null, name: string } | { colleagueId: null, teamId: string, name: string }
  period: LimitPeriod
  currency: string
  micros: number
  spentMicros: number
}

/** Somebody who waits for money to be paid in. */
export interface MoneyAsk { id: string, name: string, currency: string, why: string, at: number }

export interface MoneyFront {
  accounts: MoneyAccount[]
  limits: MoneyLimit[]
  asks: MoneyAsk[]
  /** For whom limits can be set. */
  colleagues: { id: string, name: string }[]
  teams: { id: string, name: string }[]
}

/** By what use is added up. */
export const USE_BY = ['line', 'colleague', 'team', 'month'] as const
export type UseBy = typeof USE_BY[number]

/** What was spent under one name; `texts` and `calls` count them. */
export interface MoneyUse { key: string, name: string, currency: string, micros: number, texts: number, calls: number }

export interface LedgerEntry {
  id: string
  at: number
  kind: EntryKind
  currency: string
  micros: number
  line: string | null
  /** Whose text it was, or who entered it; null where Plauder wrote by itself. */
  colleague: string | null
  words: string
}

/** A page of the ledger, the newest first; `next` begins the page after it. */
export interface Ledger { entries: LedgerEntry[], next: string | null }
