import type { PipelineModule } from './modules'

/** Stages in their order: those of a deal, or those of a job's candidates. */
export interface Pipeline {
  id: string
  module: PipelineModule
  name: string
  stages: string[]
  /** Of these, those in which it is over. */
  over: string[]
}

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

export interface BoardStage {
  name: string
  over: boolean
  count: number
  /** What all of them are worth together, by currency. */
  worth: Money[]
  /** The ones contacted last, first. */
  cards: BoardCard[]
}

export interface Board { pipeline: Pipeline, stages: BoardStage[], mayMove: boolean }
