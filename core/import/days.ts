import { isDay } from '../conditions/conditions'

/** Which of the first two figures of a day is the day of the month. */
export type DayOrder = 'day-first' | 'month-first'

const FIGURES = /^(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})\.?(?:[T ].*)?$/

const SERIAL = /^[2-6]\d{4}$/
/** The day from which spreadsheets count (common practice). */
const SERIAL_ZERO = Date.UTC(1899, 11, 30)

/**
 * A day as files write it, as 2026-12-03: ISO 8601, figures in either order, or a spreadsheet's count of days.
 *
 * @returns null if it is no day of the calendar
 */
export function readDay(text: string, order: DayOrder): string | null {
  const trimmed = text.trim()
  if (SERIAL.test(trimmed)) return new Date(SERIAL_ZERO + Number(trimmed) * 86_400_000).toISOString().slice(0, 10)
  const figures = FIGURES.exec(trimmed)
  if (!figures) return null
  const [a, b, c] = [Number(figures[1]), Number(figures[2]), Number(figures[3])]
  // with dots between them the day is always first (common practice)
  const dayFirst = order === 'day-first' || /^\d+\./.test(trimmed)
  const [year, month, day] = figures[1]!.length === 4 ? [a, b, c] : dayFirst ? [fullYear(c), b, a] : [fullYear(c), a, b]
  const iso = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
  return isDay(iso) ? iso : null
}

/** Two figures are of this century up to 79 (common practice). */
const fullYear = (year: number) => year >= 100 ? year : year < 80 ? 2000 + year : 1900 + year

/**
 * The order that a column of days is in, where its figures tell: there is no thirteenth month.
 *
 * @returns null if every day could be read either way
 */
export function dayOrderOf(cells: readonly string[]): DayOrder | null {
  const figures = cells.flatMap((cell) => {
    const found = FIGURES.exec(cell.trim())
    return found && found[1]!.length < 4 ? [found] : []
  })
  if (figures.some(found => Number(found[1]) > 12)) return 'day-first'
  if (figures.some(found => Number(found[2]) > 12)) return 'month-first'
  return null
}

/** The first cell that is another day when it is read the other way, if there is one. */
export const readsTwoWays = (cells: readonly string[]): string | undefined =>
  cells.find(cell => readDay(cell, 'day-first') !== readDay(cell, 'month-first'))
