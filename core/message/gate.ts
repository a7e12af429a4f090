import { EVERY_DAY, nextReachable, reachableAt } from '../hours/reachable'
import type { HoursWindow, ReachHours } from '../hours/week'
import { hoursOf } from '../hours/wish'
import type { HoldReason } from './hold'

/** Somebody who wrote or called this recently may be answered whatever the hour (common practice). */
export const ANSWER_WELCOME_FOR = 3_600_000

/** A text that was meant for a moment says the wrong thing long after it: a person decides. */
export const LATE_AFTER = 15 * 60_000

/** One that was to leave when it was written may wait for its turn, and no half a day. */
export const STALE_AFTER = 4 * 3_600_000

export interface GateFacts {
  now: number
  textingOn: boolean
  lineOpen: boolean
  numberUsable: boolean
  /** It belongs to a bulk text that somebody has paused: it waits until that goes on. */
  paused: boolean
  optedOut: boolean
  /** Every zone the person may be in; empty if nothing is known. */
  zones: string[]
  /** The hours of the house for the place where they are. */
  house: ReachHours
  /** Between which of their hours they want to be reached; null if they have not said so. */
  wish: HoursWindow | null
  /** Last text or call from them, over any line; null if there was none. */
  lastHeardAt: number | null
  /** The moment for which it was meant. */
  meantFor: number
  /** It was scheduled for that moment; otherwise it was to leave when it was written. */
  scheduled: boolean
  /** A person has said "yes, at night" for this one text. */
  nightAllowed: boolean
}

/** What of it depends on the hour alone. */
export type HourFacts = Pick<GateFacts, 'now' | 'zones' | 'house' | 'wish' | 'lastHeardAt' | 'nightAllowed'>

export type Verdict = { leaves: true } | { leaves: false, reason: HoldReason | 'paused', notBefore: number | null }

/**
 * The rules that every single text passes right before it is handed over, whoever set it off.
 * An opt-out comes first: no word of anybody's opens it.
 */
export function mayLeave(facts: GateFacts): Verdict {
  if (facts.optedOut) return held('opted-out')
  if (!facts.textingOn) return held('texting-off')
  if (!facts.lineOpen) return held('line-closed')
  if (!facts.numberUsable) return held('number-unusable')
  if (facts.paused) return { leaves: false, reason: 'paused', notBefore: null }
  if (facts.now - facts.meantFor > (facts.scheduled ? LATE_AFTER : STALE_AFTER)) return held('late')
  return mayLeaveNow(facts)
}

/** The part of the rules that depends on the hour alone, for the warning before sending. */
export function mayLeaveNow({
  now,
  zones,
  house,
  wish,
  lastHeardAt,
  nightAllowed,
}: HourFacts): Verdict {
  const hours = hoursOf(wish, house)
  if (nightAllowed || answersSomebody(now, lastHeardAt) || reachableAt(now, zones, hours)) return { leaves: true }
  const next = nextReachable(now, zones, hours)
  const known = next !== null || nextReachable(now, zones) !== null
  return { leaves: false, reason: known ? whyNotAt(now, zones, house) : 'zone-unknown', notBefore: next?.getTime() ?? null }
}

/** The first of the rules about hours that says no: everybody's night, the days and hours of the house there, their own wish. */
function whyNotAt(now: number, zones: string[], house: ReachHours): HoldReason {
  if (!reachableAt(now, zones)) return 'night'
  if (!reachableAt(now, zones, { ...EVERY_DAY, closed: house.closed })) return 'closed-day'
  return reachableAt(now, zones, house) ? 'wish' : 'place-hours'
}

export function answersSomebody(now: number, lastHeardAt: number | null): boolean {
  return lastHeardAt !== null && now - lastHeardAt <= ANSWER_WELCOME_FOR
}

function held(reason: HoldReason): Verdict {
  return { leaves: false, reason, notBefore: null }
}
