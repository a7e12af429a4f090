import { readDay } from '../import/days'
import { addDays } from './days'
import type { ClockFormat } from './format'
import { MONTHS, WEEKDAYS } from './say'

const TIME = /^(\d{1,2})(?:[:.h]?([0-5]\d))?\s*([ap])?(?:\.?m\.?)?$/i

/**
 * A time of day as people type it: "15:30", "1530", "3:30 pm", "3p", "9".
 *
 * @returns `15:30`, or null if it is no time
 */
export function readTime(typed: string): string | null {
  const found = TIME.exec(typed.trim())
  if (!found) return null
  const [hour, minute, half] = [Number(found[1]), found[2] ?? '00', found[3]?.toLowerCase()]
  if (half ? hour < 1 || hour > 12 : hour > 23) return null
  const meant = half ? hour % 12 + (half === 'p' ? 12 : 0) : hour
  return `${String(meant).padStart(2, '0')}:${minute}`
}

const DAY_AND_MONTH = /^(?:(\d{1,2})\.?\s+(\p{L}{3,})|(\p{L}{3,})\.?\s+(\d{1,2}))(?:,?\s+(\d{4}))?$/u

/**
 * A day as people type it: "3 Dec", "December 3, 2026", "3/12/2026" in the reader's own order, "2026-12-03", "tomorrow", "Fri".
 * Without a year the next such day is meant, and by a weekday the next one, never today.
 *
 * @param today `2026-11-30`
 * @returns `2026-12-03`, or null if it is no day of the calendar
 */
export function readTypedDay(typed: string, { dayFirst }: ClockFormat, today: string): string | null {
  const text = typed.trim().toLowerCase()
  if (text === 'today') return today
  if (text === 'tomorrow') return addDays(today, 1)
  const weekday = begins(WEEKDAYS, text)
  if (weekday >= 0) return addDays(today, (weekday - new Date(`${today}T00:00:00Z`).getUTCDay() + 6) % 7 + 1)
  return dayOfMonth(text.replace(WEEKDAY_BEFORE, ''), today) ?? readDay(text, dayFirst ? 'day-first' : 'month-first')
}

/** "Thu, " in front of a day: it says nothing that the day does not. */
const WEEKDAY_BEFORE = /^(?:sun|mon|tue|wed|thu|fri|sat)\p{L}*\.?,?\s+/u

function dayOfMonth(text: string, today: string): string | null {
  const found = DAY_AND_MONTH.exec(text)
  if (!found) return null
  const month = begins(MONTHS, (found[2] ?? found[3])!)
  const dayIn = (year: number) => `${year}-${String(month + 1).padStart(2, '0')}-${(found[1] ?? found[4])!.padStart(2, '0')}`
  const thisYear = Number(today.slice(0, 4))
  const years = found[5] ? [Number(found[5])] : [thisYear, thisYear + 1]
  // read back, so that there is no 31 June
  return years.map(year => readDay(dayIn(year), 'day-first')).find(day => day && (found[5] || day >= today)) ?? null
}

/** Which of the names a word of three letters or more begins. */
const begins = (names: readonly string[], word: string): number =>
  word.length < 3 ? -1 : names.findIndex(name => name.toLowerCase().startsWith(word))
