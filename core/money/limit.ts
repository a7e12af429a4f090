import { addDays, dayAt, dayStart } from '../hours/days'
import type { ZoneRules } from '../hours/rules'

/** For how long a limit counts before it begins anew. */
export const LIMIT_PERIODS = ['day', 'month'] as const
export type LimitPeriod = typeof LIMIT_PERIODS[number]

/** When the day or the month began in which it is now, by the clock of a zone; epoch milliseconds. */
export function periodStart(period: LimitPeriod, zone: ZoneRules, now: number): number {
  const today = dayAt(zone, now)
  return dayStart(zone, period === 'day' ? today : `${today.slice(0, 8)}01`)
}

/** When it begins anew. */
export function periodEnd(period: LimitPeriod, zone: ZoneRules, now: number): number {
  const today = dayAt(zone, now)
  if (period === 'day') return dayStart(zone, addDays(today, 1))
  const [year, month] = [Number(today.slice(0, 4)), Number(today.slice(5, 7))]
  return dayStart(zone, `${month === 12 ? year + 1 : year}-${String(month % 12 + 1).padStart(2, '0')}-01`)
}
