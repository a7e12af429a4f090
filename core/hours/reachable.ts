import { pieceAt, type ZoneRules } from './rules'
import { checkWeek, everyDay, weekdayOf, type HoursWindow, type ReachHours } from './week'
import { zoneRules } from './zones'

/**
 * Nobody is texted at night: not before 8 and not from 21 on, where the person is.
 * Source: 47 CFR 64.1200(c)(1), value from memory. This is the one place where it stands; what narrows it stands in `house.ts`.
 */
export const ALLOWED_HOURS: HoursWindow = { from: 8, to: 21 }

/** The same, for each day. */
export const EVERY_DAY: ReachHours = everyDay(ALLOWED_HOURS)

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Over a year every combination of summer times has come by. */
const HORIZON = 370 * DAY

/**
 * Whether somebody who may be in any of these zones may be reached at this instant.
 *
 * @param zones IANA names; all of them must be inside the hours. Empty or unknown: false
 * @param hours 8 to 21 on each day if left out
 * @throws RangeError if the instant is no time or the hours are none
 */
export function reachableAt(instant: Date | number, zones: string[], hours: ReachHours = EVERY_DAY): boolean {
  const at = readInstant(instant)
  checkWeek(hours.week)
  const rules = readZones(zones)
  return rules !== null && rules.every(zone => nextInZone(zone, at, hours) === at)
}

/**
 * The first instant from then on at which `reachableAt` holds.
 *
 * @returns null where there is none, because zones are unknown or their days never overlap
 * @throws RangeError as `reachableAt`
 */
export function nextReachable(instant: Date | number, zones: string[], hours: ReachHours = EVERY_DAY): Date | null {
  const start = readInstant(instant)
  checkWeek(hours.week)
  const rules = readZones(zones)
  if (!rules) return null
  let at = start
  while (at <= start + HORIZON) {
    const latest = Math.max(...rules.map(zone => nextInZone(zone, at, hours)))
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
export function reachableUntil(instant: Date | number, zones: string[], hours: ReachHours = EVERY_DAY): number | null {
  if (!reachableAt(instant, zones, hours)) return null
  const at = readInstant(instant)
  return Math.min(...readZones(zones)!.map(rules => endInZone(rules, at, hours)))
}

/** The first instant after `at`, which is inside the hours, that is outside of them in one zone. */
function endInZone(rules: ZoneRules, at: number, hours: ReachHours): number {
  for (const { number, midnight, from, until } of localDays(rules, at)) {
    const window = windowOn(number, hours)
    if (!window || from < midnight + window.from * HOUR) return from
    const end = midnight + window.to * HOUR
    if (end < until) return Math.max(from, end)
  }
  return Infinity
}

/** The first instant from `at` on that is inside the hours in one zone. */
function nextInZone(rules: ZoneRules, at: number, hours: ReachHours): number {
  for (const { number, midnight, from, until } of localDays(rules, at)) {
    const window = windowOn(number, hours)
    if (!window) continue
    const opens = Math.max(from, midnight + window.from * HOUR)
    if (opens < Math.min(until, midnight + window.to * HOUR)) return opens
  }
  return Infinity
}

const windowOn = (day: number, { week, closed }: ReachHours): HoursWindow | null => closed.has(day) ? null : week[weekdayOf(day)]!

/**
 * The local days from an instant on, as far as is looked ahead: which day it is, when it was midnight by the clock that is in
 * force, and from when until when (exclusive) this holds. A day on which clocks change comes in pieces.
 */
function* localDays(rules: ZoneRules, at: number): Generator<{ number: number, midnight: number, from: number, until: number }> {
  for (let from = at, piece = pieceAt(rules, at); from <= at + HORIZON;) {
    const offset = rules.offsets[piece]! * 60_000
    const number = Math.floor((from + offset) / DAY)
    const midnight = number * DAY - offset
    const changes = rules.untils[piece] ?? Infinity
    const until = Math.min(midnight + DAY, changes)
    yield { number, midnight, from, until }
    if (until === changes) piece++
    from = until
  }
}

function readInstant(instant: Date | number): number {
  const at = typeof instant === 'number' ? instant : instant.getTime()
  if (!Number.isFinite(at)) throw new RangeError('The instant is not a time: give a Date or epoch milliseconds.')
  return at
}

function readZones(zones: string[]): ZoneRules[] | null {
  if (zones.length === 0) return null
  const rules = zones.map(zoneRules)
  return rules.every(zone => zone !== null) ? rules as ZoneRules[] : null
}
