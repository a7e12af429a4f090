import { pieceAt, type ZoneRules } from './rules'

/** What a clock and a calendar on the wall show. Month 1 to 12, weekday 0 (Sunday) to 6. */
export interface WallTime {
  year: number
  month: number
  day: number
  hour: number
  minute: number
  weekday: number
}

/** Minutes east of UTC that hold in a zone at an instant. */
export function offsetAt(rules: ZoneRules, instant: number): number {
  return rules.offsets[pieceAt(rules, instant)]!
}

/** The wall time of a zone at an instant (epoch milliseconds). */
export function wallTime(rules: ZoneRules, instant: number): WallTime {
  const shifted = new Date(instant + offsetAt(rules, instant) * 60_000)
  return {
    year: shifted.getUTCFullYear(),
    month: shifted.getUTCMonth() + 1,
    day: shifted.getUTCDate(),
    hour: shifted.getUTCHours(),
    minute: shifted.getUTCMinutes(),
    weekday: shifted.getUTCDay(),
  }
}
