import { offsetAt, wallTime } from './wall'
import type { ZoneRules } from './rules'

/** A moment as it was meant: what the clock on a wall of some place shows then. */
export interface WallMoment {
  /** `2026-12-03T09:00`. */
  wallTime: string
  /** IANA zone of the place. */
  zone: string
}

export type ScheduledInstant
  = | { ok: true, instant: number }
    /** `gap`: clocks are put forward over that time; `next` is what they show right after. */
    | { ok: false, reason: 'malformed' } | { ok: false, reason: 'gap', next: string }

const SHAPE = /^(\d{4})-(\d\d)-(\d\d)T([01]\d|2[0-3]):([0-5]\d)$/

/**
 * The instant of a wall time in a zone. Of a time that comes twice, when clocks are put back, the first is meant.
 *
 * @param wall `2026-12-03T09:00`
 */
export function instantOf(wall: string, rules: ZoneRules): ScheduledInstant {
  const parts = SHAPE.exec(wall)?.slice(1).map(Number)
  if (!parts) return { ok: false, reason: 'malformed' }
  const [year, month, day, hour, minute] = parts as [number, number, number, number, number]
  const asUtc = Date.UTC(year, month - 1, day, hour, minute)
  if (new Date(asUtc).getUTCDate() !== day || new Date(asUtc).getUTCMonth() !== month - 1) return { ok: false, reason: 'malformed' }
  // an offset is at most 14 hours from UTC: whichever holds there is one of those a day around it
  const offsets = [...new Set([asUtc - DAY, asUtc, asUtc + DAY].map(instant => offsetAt(rules, instant)))]
  const instants = offsets.map(offset => asUtc - offset * 60_000).filter(instant => wallOf(instant, rules) === wall)
  if (instants.length > 0) return { ok: true, instant: Math.min(...instants) }
  return { ok: false, reason: 'gap', next: wallOf(asUtc - Math.min(...offsets) * 60_000, rules) }
}

const DAY = 86_400_000

/** What the clock shows in a zone at an instant, as `2026-12-03T09:00`. */
export function wallOf(instant: number, rules: ZoneRules): string {
  const { year, month, day, hour, minute } = wallTime(rules, instant)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${year}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}`
}
