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

/** A day of the calendar, "2026-12-03", as "Thu 3 Dec 2026". */
export function calendarDay(day: string): string {
  const [year, month, date] = day.split('-').map(Number)
  const weekday = new Date(Date.UTC(year!, month! - 1, date)).getUTCDay()
  return `${WEEKDAYS[weekday]!.slice(0, 3)} ${date} ${MONTHS[month! - 1]!.slice(0, 3)} ${year}`
}

/** "9:00 Honolulu time on Tue 1 Dec", with the year when it is another one. */
export function sayWallMoment({ wallTime, zone }: WallMoment, thisYear: number): string {
  const day = calendarDay(wallTime.slice(0, 10)).replace(` ${thisYear}`, '')
  return `${wallTime.slice(11).replace(/^0/, '')} ${placeOf(zone)} time on ${day}`
}
