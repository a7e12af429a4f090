import { pieceAt, type ZoneRules } from './rules'
import { zoneRules } from './zones'

/** Whole hours of local time: from the first inclusive to the second exclusive. */
export interface HoursWindow { from: number, to: number }

/**
 * Nobody is texted at night: not before 8 and not from 21 on, where the person is.
 * Source: 47 CFR 64.1200(c)(1), value from memory. This is the one place where it stands.
 */
export const ALLOWED_HOURS: HoursWindow = { from: 8, to: 21 }

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Over a year every combination of summer times has come by. */
const HORIZON = 370 * DAY

/**
 * Whether somebody who may be in any of these zones may be reached at this instant.
 *
 * @param zones IANA names; all of them must be inside the hours. Empty or unknown: false
 * @param window whole hours, 8 to 21 if left out
 * @throws RangeError if the instant is no time or the window's hours are not whole hours of 0 to 24
 */
export function reachableAt(instant: Date | number, zones: string[], window: HoursWindow = ALLOWED_HOURS): boolean {
  const at = readInstant(instant)
  checkWindow(window)
  const rules = readZones(zones)
  return rules !== null && rules.every(zone => nextInZone(zone, at, window) === at)
}

/**
 * The first instant from then on at which `reachableAt` holds.
 *
 * @returns null where there is none, because zones are unknown or their days never overlap
 * @throws RangeError as `reachableAt`
 */
export function nextReachable(instant: Date | number, zones: string[], window: HoursWindow = ALLOWED_HOURS): Date | null {
  const start = readInstant(instant)
  checkWindow(window)
  const rules = readZones(zones)
  if (!rules || window.from >= window.to) return null
  let at = start
  while (at <= start + HORIZON) {
    const latest = Math.max(...rules.map(zone => nextInZone(zone, at, window)))
    if (latest === at) return new Date(at)
    at = latest
  }
  return null
}

/**
 * The instant at which the hours end in which somebody may be reached now.
 *
 * @returns null where nobody may be reached now; Infinity where the hours never end
 * @throws RangeError as `reachableAt`
 */
export function reachableUntil(instant: Date | number, zones: string[], window: HoursWindow = ALLOWED_HOURS): number | null {
  if (!reachableAt(instant, zones, window)) return null
  const at = readInstant(instant)
  return Math.min(...readZones(zones)!.map(rules => endInZone(rules, at, window)))
}

/** The first instant after `at`, which is inside the window, that is outside of it in one zone. */
function endInZone(rules: ZoneRules, at: number, { from, to }: HoursWindow): number {
  for (let [piece, instant] = [pieceAt(rules, at), at]; instant <= at + HORIZON; piece++) {
    const until = rules.untils[piece] ?? Infinity
    const intoDay = ((instant + rules.offsets[piece]! * 60_000) % DAY + DAY) % DAY
    if (intoDay < from * HOUR || intoDay >= to * HOUR) return instant
    const end = to === 24 && from === 0 ? Infinity : instant + to * HOUR - intoDay
    if (end < until) return end
    if (until === Infinity) break
    instant = until
  }
  return Infinity
}

/** The first instant from `at` on that is inside the window in one zone; walks over changes of offset one by one. */
function nextInZone(rules: ZoneRules, at: number, { from, to }: HoursWindow): number {
  let instant = at
  for (let piece = pieceAt(rules, at); instant <= at + HORIZON; piece++) {
    const until = rules.untils[piece] ?? Infinity
    const offset = rules.offsets[piece]! * 60_000
    const intoDay = ((instant + offset) % DAY + DAY) % DAY
    let wait = 0
    if (intoDay < from * HOUR) wait = from * HOUR - intoDay
    else if (intoDay >= to * HOUR) wait = DAY - intoDay + from * HOUR
    if (from < to && instant + wait < until) return instant + wait
    if (until === Infinity) break
    instant = until
  }
  return Infinity
}

function readInstant(instant: Date | number): number {
  const at = typeof instant === 'number' ? instant : instant.getTime()
  if (!Number.isFinite(at)) throw new RangeError('The instant is not a time: give a Date or epoch milliseconds.')
  return at
}

function checkWindow({ from, to }: HoursWindow): void {
  for (const hour of [from, to]) {
    if (!Number.isInteger(hour) || hour < 0 || hour > 24) {
      throw new RangeError(`The hours ${from} to ${to} are not whole hours of a day: give numbers from 0 to 24.`)
    }
  }
}

function readZones(zones: string[]): ZoneRules[] | null {
  if (zones.length === 0) return null
  const rules = zones.map(zoneRules)
  return rules.every(zone => zone !== null) ? rules as ZoneRules[] : null
}
