/** Hours of local time, whole or half ones (21.5 is 21:30): from the first inclusive to the second exclusive. */
export interface HoursWindow { from: number, to: number }

/** The hours of each weekday, from Sunday on; null for a day without any. */
export type WeekHours = readonly (HoursWindow | null)[]

/** When somebody may be reached: in which hours of each weekday, and on which days of the calendar not at all. */
export interface ReachHours {
  week: WeekHours
  /** Days, as `dayNumber` counts them. */
  closed: ReadonlySet<number>
}

const DAY_MS = 86_400_000
const NEVER_CLOSED: ReadonlySet<number> = new Set()

/** The days of the calendar, counted from the first of January 1970 on; takes "2026-11-26". */
export const dayNumber = (day: string): number => Date.parse(`${day}T00:00:00Z`) / DAY_MS

/** 0 for a Sunday, to 6. */
export const weekdayOf = (dayNumber: number): number => ((dayNumber + 4) % 7 + 7) % 7

/** The same hours on each day. */
export const everyDay = (window: HoursWindow): ReachHours => ({ week: Array.from({ length: 7 }, () => window), closed: NEVER_CLOSED })

/** The hours that lie in both. */
function both(one: HoursWindow | null, other: HoursWindow | null): HoursWindow | null {
  if (!one || !other) return null
  const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)]
  return from < to ? { from, to } : null
}

/** Hours narrowed by those of a week: never widened. */
export const narrow = ({ week, closed }: ReachHours, by: WeekHours): ReachHours =>
  ({ week: week.map((window, weekday) => both(window, by[weekday] ?? null)), closed })

/** Without some more days. */
export const without = ({ week, closed }: ReachHours, days: Iterable<number>): ReachHours =>
  ({ week, closed: new Set([...closed, ...days]) })

/** @throws RangeError for what is no week of seven days, or an hour that is not a whole or a half one of 0 to 24 */
export function checkWeek(week: WeekHours): void {
  if (week.length !== 7) throw new RangeError(`A week of ${week.length} days is none: give the hours of seven, from Sunday on.`)
  for (const { from, to } of week.filter(window => window !== null)) {
    for (const hour of [from, to]) {
      if (!Number.isInteger(hour * 2) || hour < 0 || hour > 24)
        throw new RangeError(`The hours ${from} to ${to} are not whole or half hours of a day: give numbers from 0 to 24.`)
    }
  }
}
