/** How far the practice world misbehaves. All zero: it is late by nothing and loses nothing. */
export interface Faults {
  /** Reports come this much later, at random, in milliseconds. */
  lateUpToMs: number
  /** Shares of 0 to 1. */
  reportTwice: number
  reportLost: number
  /** Share of accepted texts whose answer never arrives. */
  answerLost: number
  /** Share of events that are followed by one of a kind that no customer knows. */
  oddEvents: number
}

export const NO_FAULTS: Faults = { lateUpToMs: 0, reportTwice: 0, reportLost: 0, answerLost: 0, oddEvents: 0 }

/** A small generator with a seed (mulberry32), so that a run can be had again. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6D2B79F5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}
