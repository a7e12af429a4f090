import { isDay } from '~~/core/conditions/conditions'
import { isTimeOfDay, sayTime } from '~~/core/hours/format'
import * as say from '~~/core/hours/say'
import { wallTime } from '~~/core/hours/wall'
import { wallOf } from '~~/core/hours/schedule'
import type { ZoneRules } from '~~/core/hours/rules'
import { readersFormat } from './reader'

export { placeOf } from '~~/core/hours/say'

const MINUTE = 60_000

/** "9:03" on the wall of a zone, or "9:03 am". */
export const clock = (instant: number, zone: ZoneRules): string => timeOfDay(wallOf(instant, zone).slice(11))

/** "15:30" as its reader writes it. */
export const timeOfDay = (time: string): string => sayTime(time, readersFormat())

export const hourOfDay = (hour: number): string => timeOfDay(`${String(hour).padStart(2, '0')}:00`)

/** "9:03:07", to the second, for what a list of steps is read for. */
export function clockToSecond(instant: number, zone: ZoneRules): string {
  const seconds = String(new Date(instant).getUTCSeconds()).padStart(2, '0')
  return clock(instant, zone).replace(/:\d\d/, minutes => `${minutes}:${seconds}`)
}

/** What stood in a field: a day or a time of day as the reader writes it, anything else as it is. */
export function fieldWords(value: string | null): string {
  if (value === null) return 'empty'
  return isDay(value) ? calendarDay(value) : isTimeOfDay(value) ? timeOfDay(value) : value
}

/** A day of the calendar, "2026-12-03", as "Thu 3 Dec 2026" or "Thu, Dec 3, 2026". */
export const calendarDay = (day: string): string => say.calendarDay(day, readersFormat())

/** "Today", "Yesterday", "Monday 23 November", with the year when it is another one. */
export function dayName(instant: number, zone: ZoneRules, now: number): string {
  const then = wallTime(zone, instant)
  const today = wallTime(zone, now)
  const yesterday = wallTime(zone, now - 24 * 60 * MINUTE)
  const same = (a: typeof then, b: typeof then) => a.year === b.year && a.month === b.month && a.day === b.day
  if (same(then, today)) return 'Today'
  if (same(then, yesterday)) return 'Yesterday'
  const [weekday, month] = [say.WEEKDAYS[then.weekday]!, say.MONTHS[then.month - 1]!]
  return say.sayDay({ weekday, day: then.day, month, year: then.year === today.year ? undefined : then.year }, readersFormat())
}

/** "15 Nov", for places with little room. */
export function shortDay(instant: number, zone: ZoneRules): string {
  const { day, month } = wallTime(zone, instant)
  return say.sayDay({ day, month: say.MONTHS[month - 1]!.slice(0, 3) }, readersFormat())
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

/** "November 2026" of "2026-11". */
export const monthName = (month: string): string => `${say.MONTHS[Number(month.slice(5)) - 1]} ${month.slice(0, 4)}`
