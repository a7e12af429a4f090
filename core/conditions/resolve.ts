import { addDays, dayStart } from '../hours/days'
import type { ZoneRules } from '../hours/rules'
import type { Condition } from './conditions'

/** From (included) to (excluded); null is open. Days as `2026-11-25`, instants as epoch milliseconds. */
export interface Range<T> { from: T | null, to: T | null, orEmpty: boolean }

/** What relative days are counted from: today, where the person who asks is. */
export interface Today { day: string, zone: ZoneRules }

/** The days that a condition about a day means. The last 7 days are today and the seven before it. */
export function daysOf({ test, value }: Condition, today: string): Range<string> {
  const day = String(value)
  const days = Number(value)
  const range = (from: string | null, to: string | null, orEmpty = false) => ({ from, to, orEmpty })
  switch (test) {
    case 'on': return range(day, addDays(day, 1))
    case 'before': return range(null, day)
    case 'after': return range(addDays(day, 1), null)
    case 'last-days': return range(addDays(today, -days), addDays(today, 1))
    case 'next-days': return range(today, addDays(today, days + 1))
    case 'older-than-days': return range(null, addDays(today, -days))
    case 'not-for-days': return range(null, addDays(today, -days), true)
    default: throw new Error(`“${test}” is not about days.`)
  }
}

/** The same for instants: a day begins and ends where the person who asks is. */
export function instantsOf(condition: Condition, { day, zone }: Today): Range<number> {
  const { from, to, orEmpty } = daysOf(condition, day)
  return { from: from === null ? null : dayStart(zone, from), to: to === null ? null : dayStart(zone, to), orEmpty }
}
