import type { Held } from './modules'

/** Where something can stand. In some stages it is over: what happens with its people does not show on it any more. */
export interface Stage { id: string, name: string, over: boolean }

/** Stages in their order. */
export interface Pipeline { id: string, holds: Held, name: string, stages: Stage[] }

export interface Money { currency: string, amount: number }

/** A deal in its stage, or a candidate in a job's. */
export interface BoardCard {
  /** The record that moves: the deal, or the candidate. */
  id: string
  name: string
  /** The deal's company, or the candidate's role. */
  about: string | null
  owner: string
  money: Money | null
  lastContactAt: number | null
  /** Since when it is in this stage, where that is known. */
  since: number | null
  waits: boolean
}

export interface BoardStage extends Stage {
  count: number
  /** What all of them are worth together, by currency. */
  worth: Money[]
  /** The ones contacted last, first. */
  cards: BoardCard[]
}

export interface Board { pipeline: Pipeline, stages: BoardStage[], mayMove: boolean }
