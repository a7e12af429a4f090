import { MONTHS, WEEKDAYS } from '~~/core/hours/say'
import { wallTime } from '~~/core/hours/wall'
import type { ZoneRules } from '~~/core/hours/rules'

export { calendarDay, placeOf } from '~~/core/hours/say'

const MINUTE = 60_000

/** "9:03" on the wall of a zone. */
export function clock(instant: number, zone: ZoneRules): string {
  const { hour, minute } = wallTime(zone, instant)
  return `${hour}:${String(minute).padStart(2, '0')}`
}

/** "Today", "Yesterday", "Monday 23 November", with the year when it is another one. */
export function dayName(instant: number, zone: ZoneRules, now: number): string {
  const then = wallTime(zone, instant)
  const today = wallTime(zone, now)
  const yesterday = wallTime(zone, now - 24 * 60 * MINUTE)
  const same = (a: typeof then, b: typeof then) => a.year === b.year && a.month === b.month && a.day === b.day
  if (same(then, today)) return 'Today'
  if (same(then, yesterday)) return 'Yesterday'
  const day = `${WEEKDAYS[then.weekday]} ${then.day} ${MONTHS[then.month - 1]}`
  return then.year === today.year ? day : `${day} ${then.year}`
}

/** "15 Nov", for places with little room. */
export function shortDay(instant: number, zone: ZoneRules): string {
  const { day, month } = wallTime(zone, instant)
  return `${day} ${MONTHS[month - 1]!.slice(0, 3)}`
}

/** "26 min", "3 h", "9 days": how long something has been. */
export function span(milliseconds: number): string {
  const minutes = Math.max(0, Math.round(milliseconds / MINUTE))
  if (minutes < 1) return 'a moment'
  if (minutes < 60) return `${minutes} min`
  if (minutes < 48 * 60) return `${Math.round(minutes / 60)} h`
  return `${Math.round(minutes / 1440)} days`
}

/** "a moment ago", "9 days ago". */
export const ago = (instant: number, now: number) => `${span(now - instant)} ago`
