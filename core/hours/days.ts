import { offsetAt, wallTime } from './wall'
import type { ZoneRules } from './rules'

const DAY = 86_400_000

/** The calendar day `2026-11-25` of a zone at an instant (epoch milliseconds). */
export function dayAt(rules: ZoneRules, instant: number): string {
  const { year, month, day } = wallTime(rules, instant)
  return `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
}

/** A day so many days later (or earlier, if negative). */
export function addDays(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10)
}

/** The next day on which people work, Monday to Friday (common practice). */
export function nextWorkingDay(day: string): string {
  let next = addDays(day, 1)
  while ([0, 6].includes(new Date(`${next}T00:00:00Z`).getUTCDay())) next = addDays(next, 1)
  return next
}

/**
 * The first instant of a calendar day in a zone. Where clocks spring forward over midnight, the day
 * begins at the jump; where they fall back over it, at the first of the two midnights after which no
 * moment of the day before follows.
 */
export function dayStart(rules: ZoneRules, day: string): number {
  const utc = Date.parse(`${day}T00:00:00Z`)
  const starts = [offsetAt(rules, utc - DAY), offsetAt(rules, utc + DAY)].map(offset => utc - offset * 60_000)
  return starts.find(start => dayAt(rules, start) >= day && dayAt(rules, start - 1) < day) ?? Math.max(...starts)
}
