import type { Purse } from './purse'
import { leftIn } from './purse'

const DAY_MS = 86_400_000

/** By so many days the pace is judged: a week holds a weekend. */
export const PACE_DAYS = 7

/**
 * For how many days what is left lasts at the pace of the last days.
 *
 * @param spentMicros what was spent within the last `PACE_DAYS` days
 * @param firstAt when anything was spent first, epoch milliseconds; whoever began yesterday is judged by that day
 * @returns null where nothing is spent, and so nothing runs out
 */
export function lastsDays(purse: Purse, spentMicros: number, firstAt: number | null, now: number): number | null {
  if (spentMicros <= 0 || firstAt === null) return null
  const days = Math.min(PACE_DAYS, Math.max(1, (now - firstAt) / DAY_MS))
  return Math.max(0, leftIn(purse)) / (spentMicros / days)
}

/** "less than a day", "a day", "13 days", "more than a year" */
export const sayLasting = (days: number): string =>
  days < 1 ? 'less than a day' : days < 2 ? 'a day' : days >= 365 ? 'more than a year' : `${Math.floor(days)} days`

/** Whether somebody is to be told that it runs out; of what is billed nothing does. */
export const runsOut = (purse: Purse, lasts: number | null, warnDays: number): boolean =>
  purse.prepaid && (leftIn(purse) <= 0 || (lasts !== null && lasts < warnDays))
