import { addDays, dayAt } from '../hours/days'
import { instantOf, type WallMoment } from '../hours/schedule'
import type { ZoneRules } from '../hours/rules'

/**
 * The moment so many days from now at a time of the day, by the clock of a place. A time that clocks skip that day is
 * moved to the one they show right after.
 *
 * @param time `09:30`
 */
export function dueIn(now: number, days: number, time: string, zone: ZoneRules): WallMoment & { instant: number } {
  return dueOn(addDays(dayAt(zone, now), days), time, zone)
}

/**
 * The moment on a day at a time, by the clock of a place.
 *
 * @param day `2026-12-03`
 * @throws RangeError if it is no day or no time
 */
export function dueOn(day: string, time: string, zone: ZoneRules): WallMoment & { instant: number } {
  const wallTime = `${day}T${time}`
  const at = instantOf(wallTime, zone)
  if (at.ok) return { wallTime, zone: zone.name, instant: at.instant }
  if (at.reason === 'malformed') throw new RangeError(`“${day} ${time}” is no moment of the calendar.`)
  const next = instantOf(at.next, zone)
  if (!next.ok) throw new RangeError(`“${at.next}” is no moment of the calendar.`)
  return { wallTime: at.next, zone: zone.name, instant: next.instant }
}
