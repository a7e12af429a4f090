import { reachableUntil } from '../hours/reachable'

/**
 * Places in the order in which their people are to be called: first those whose hours end soonest, last those where
 * nobody may be called now.
 *
 * @param places lists of zones, each all those in which somebody may be
 */
export function byLocalTime(places: string[][], now: number): string[][] {
  const ends = new Map(places.map(zones => [zones, reachableUntil(now, zones) ?? Infinity]))
  return [...places].sort((a, b) => compare(ends.get(a)!, ends.get(b)!))
}

/** Infinity less itself is no number. */
const compare = (a: number, b: number) => a === b ? 0 : a < b ? -1 : 1
