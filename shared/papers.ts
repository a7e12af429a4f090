import type { AskedFor, Papers, PapersState } from '../core/papers/papers'

/** Papers with one carrier for one country. */
export interface Registration {
  id: string
  carrier: string
  /** As an admin reads it. */
  title: string
  country: string
  state: PapersState
  ref: string | null
  handedAt: number
  answeredAt: number | null
  leastDays: number
  mostDays: number
  /** Something was changed since: what the carrier has is not what is written. */
  changedSince: boolean
  /** The carrier is there and takes them by itself; else they are handed in by hand, and what it says is written down here. */
  byItself: boolean
  /** The latest first. */
  steps: { at: number, kind: PapersState, words: string, by: string | null }[]
}

/** Papers that a carrier asks for and does not have. */
export interface PapersWanted { carrier: string, title: string, country: string, leastDays: number, mostDays: number, lines: number }

export interface PaperFile { id: string, name: string, type: string, size: number }

export interface PapersFront {
  papers: Papers
  /** Counts changes of it. */
  version: number
  missing: AskedFor[]
  files: PaperFile[]
  registrations: Registration[]
  wanted: PapersWanted[]
  /** Carriers to which papers are handed in by hand. */
  byHand: { name: string, title: string }[]
  /** Carriers that take them by themselves and do not answer at the moment, by title. */
  away: string[]
  /** Templates unlike every sample that was handed in, the least alike first. */
  drifting: { id: string, name: string, likeness: number, nearest: string }[]
}

export const MOST_PAPER_FILES = 10
export const MOST_PAPER_BYTES = 2_000_000
export const PAPER_TYPES = ['application/pdf', 'image/png', 'image/jpeg'] as const
