import type { CallFacts } from '../core/call/facts'
import type { DispositionColour } from './calling'
import type { PassReason, RoundState, Standing } from '../core/call/round'
import type { Module } from './modules'

/** Who is called first: as the list stands, whose hours end soonest, or whom nobody spoke with for longest. */
export const ROUND_ORDERS = ['list', 'local-time', 'last-contact'] as const
export type RoundOrder = typeof ROUND_ORDERS[number]

/** More than anybody calls in weeks: a longer list is several rounds. */
export const MOST_IN_ROUND = 10_000

/** How many stand where. */
export type StandingCounts = Record<Standing['state'], number>

/** What a round of these people would find now, before it is made. */
export interface RoundPreview { chosen: number, callable: number, passed: Partial<Record<PassReason, number>> }

export interface RoundHead {
  id: string
  name: string
  module: Module
  state: RoundState
  order: RoundOrder
  pauseSeconds: number | null
  notWithinHours: number
  madeAt: number
  madeBy: { id: string, firstName: string }
  team: { id: string, name: string } | null
  counts: StandingCounts
  /** Who is on it now. */
  on: { id: string, firstName: string }[]
  mayChange: boolean
}

/** Whoever is handed out to me. */
export interface InHand { recordId: string, name: string, firstName: string, phoneId: string, number: string }

/** The round I am on. */
export interface MyRound {
  id: string
  name: string
  state: RoundState
  pauseSeconds: number | null
  counts: StandingCounts
  inHand: InHand | null
  /** With nobody in hand: when somebody's turn may come again; null if nobody's will. */
  nextAt: number | null
}

export interface RoundResult {
  name: string
  /** Of its key; null where none was pressed yet. */
  colour: DispositionColour | null
  count: number
}
export interface RoundColleague { id: string, firstName: string, here: boolean, called: number, reached: number, talkMs: number }

export interface RoundDetail extends RoundHead {
  /** How the calls went, the most frequent first; no name: no disposition yet. */
  results: RoundResult[]
  colleagues: RoundColleague[]
  /** Of those who wait: how many could not be called now, and why. */
  notNow: Partial<Record<PassReason, number>>
}

export interface RoundPersonRow {
  recordId: string
  name: string
  title: string | null
  company: string | null
  city: string | null
  state: Standing['state']
  reason: PassReason | null
  notBefore: number | null
  by: string | null
  disposition: string | null
  facts: CallFacts | null
  changedAt: number | null
}

export interface RoundPeople { rows: RoundPersonRow[], total: number, page: number, size: number }
