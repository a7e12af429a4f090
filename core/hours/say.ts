import { sayTime, type ClockFormat } from './format'
import type { WallMoment } from './schedule'

export const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** "Honolulu" of "Pacific/Honolulu". */
export const placeOf = (zone: string) => zone.split('/').at(-1)!.replaceAll('_', ' ').replace(/^St /, 'St. ')

/** The parts of a day that are said; a weekday or a year that is not needed is left out. */
interface SaidDay { weekday?: string, day: number, month: string, year?: number }

/** "Thu 3 Dec 2026", or "Thu, Dec 3, 2026". */
export function sayDay({ weekday, day, month, year }: SaidDay, { dayFirst }: ClockFormat): string {
  if (dayFirst) return [weekday, day, month, year].filter(Boolean).join(' ')
  return [weekday, `${month} ${day}`, year].filter(Boolean).join(', ')
}

/**
 * A day of the calendar, "2026-12-03", as "Thu 3 Dec 2026".
 *
 * @param withoutYear a year that need not be said
 */
export function calendarDay(date: string, format: ClockFormat, withoutYear?: number): string {
  const [year, month, day] = date.split('-').map(Number) as [number, number, number]
  const weekday = WEEKDAYS[new Date(Date.UTC(year, month - 1, day)).getUTCDay()]!.slice(0, 3)
  return sayDay({ weekday, day, month: MONTHS[month - 1]!.slice(0, 3), year: year === withoutYear ? undefined : year }, format)
}

/** "9:00 Honolulu time on Tue 1 Dec", with the year when it is another one. */
export const sayWallMoment = ({ wallTime, zone }: WallMoment, thisYear: number, format: ClockFormat): string =>
  `${sayTime(wallTime.slice(11), format)} ${placeOf(zone)} time on ${calendarDay(wallTime.slice(0, 10), format, thisYear)}`

/**
 * A moment in a sentence that is kept or goes to several readers, each of whom reads it in their own format: `sayMomentsIn`.
 * Written as in RFC 9557, to the minute and without an offset: `2026-12-01T09:00[Pacific/Honolulu]`. A day alone is marked by being
 * written as in ISO 8601.
 */
export const markMoment = ({ wallTime, zone }: WallMoment): string => `${wallTime}[${zone}]`

/** A time of day in such a sentence, as ISO 8601 writes one apart from its day: `T09:00`. */
export const markTime = (time: string): string => `T${time}`

export const markHour = (hour: number): string => markTime(`${String(hour).padStart(2, '0')}:00`)

const MARKED = /\b(\d{4}-[01]\d-[0-3]\d)(?:T(\d\d:\d\d)\[([\w+\-/]+)\]|\b(?!T))|\bT([01]\d:[0-5]\d|2[0-3]:[0-5]\d)\b/g

/** A sentence with its moments and times as its reader writes them. */
export const sayMomentsIn = (sentence: string, thisYear: number, format: ClockFormat): string =>
  sentence.replace(MARKED, (_, day: string | undefined, at: string | undefined, zone: string, time: string) =>
    day === undefined
      ? sayTime(time, format)
      : at === undefined ? calendarDay(day, format) : sayWallMoment({ wallTime: `${day}T${at}`, zone }, thisYear, format))
