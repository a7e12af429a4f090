import type { HoursWindow, ReachHours } from '../hours/week'
import { mayCall } from './gate'
import type { PassReason } from './round'

/** What decides whether somebody is handed out in a round. Instants are epoch milliseconds. */
export interface PassFacts {
  now: number
  hasNumber: boolean
  refused: boolean
  /** Every zone the person may be in; empty if nothing is known. */
  zones: string[]
  /** The hours of the house for the place where they are. */
  house: ReachHours
  wish: HoursWindow | null
  lastHeardAt: number | null
  /** The last call of anybody of ours to this number. */
  lastCalledAt: number | null
  /** Nobody is called again within so long. */
  notWithinMs: number
}

/** Why somebody is passed over now and until when (null: for good); null if they may be called. */
export function passOver({
  hasNumber,
  lastCalledAt,
  notWithinMs,
  ...facts
}: PassFacts): { reason: PassReason, notBefore: number | null } | null {
  if (!hasNumber) return { reason: 'no-number', notBefore: null }
  const verdict = mayCall({ ...facts, nightAllowed: false })
  if (!verdict.may && verdict.reason === 'no-calls') return { reason: 'no-calls', notBefore: null }
  if (lastCalledAt !== null && lastCalledAt + notWithinMs > facts.now)
    return { reason: 'called-lately', notBefore: lastCalledAt + notWithinMs }
  return verdict.may ? null : { reason: verdict.reason as PassReason, notBefore: verdict.notBefore }
}
