import type { HoursWindow, ReachHours } from '../hours/week'
import type { FOR_THE_HOUR } from '../message/hold'
import { mayLeaveNow } from '../message/gate'

export interface CallGateFacts {
  now: number
  /** Somebody there has asked for no calls. */
  refused: boolean
  /** Every zone the person may be in; empty if nothing is known. */
  zones: string[]
  /** The hours of the house for the place where they are. */
  house: ReachHours
  /** Between which of their hours they want to be reached; null if they have not said so. */
  wish: HoursWindow | null
  /** Last text or call from them; null if there was none. */
  lastHeardAt: number | null
  /** A person has said "yes, at night" for this one call. */
  nightAllowed: boolean
}

type ForTheHour = typeof FOR_THE_HOUR[number]

export type CallVerdict = { may: true } | { may: false, reason: 'no-calls' | ForTheHour, notBefore: number | null }

/** Whether a number may be called now: the hours are those for texts, and a wish for no calls comes before any word of ours. */
export function mayCall({ refused, ...facts }: CallGateFacts): CallVerdict {
  if (refused) return { may: false, reason: 'no-calls', notBefore: null }
  const verdict = mayLeaveNow(facts)
  return verdict.leaves ? { may: true } : { may: false, reason: verdict.reason as ForTheHour, notBefore: verdict.notBefore }
}
