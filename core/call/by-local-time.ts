import { reachableUntil } from '../hours/reachable'
import type { ReachHours } from '../hours/week'

/**
 * Places in the order in which their people are to be called: first those whose hours end soonest, last those where
 * nobody may be called now.
 *
 * @param places each with all the zones in which somebody may be, and the hours that hold there
 */
export function byLocalTime<T extends { zones: string[], hours: ReachHours }>(places: T[], now: number): T[] {
  const ends = new Map(places.map(place => [place, reachableUntil(now, place.zones, place.hours) ?? Infinity]))
  return [...places].sort((a, b) => compare(ends.get(a)!, ends.get(b)!))
}

/** Infinity less itself is no number. */
const compare = (a: number, b: number) => a === b ? 0 : a < b ? -1 : 1
