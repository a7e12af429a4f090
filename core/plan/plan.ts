import { addDays, dayAt, dayStart } from '../hours/days'
import { nextReachable, reachableUntil } from '../hours/reachable'
import type { ZoneRules } from '../hours/rules'
import { instantOf, wallOf } from '../hours/schedule'
import type { ReachHours } from '../hours/week'
import { mostWhileNew } from './new-line'
import { countBetween, lastOf, type PlanRun } from './run'

/** People who may be texted in the same hours, over the same line: one of them is as good as another. */
export interface PlanGroup {
  id: string
  /** Every zone in which they may be; nobody is texted while it is night in one of them. */
  zones: string[]
  /** When they may be reached, by the rules of the house and their own wish. */
  hours: ReachHours
  lineId: string
  people: number
}

export interface PlanLine {
  id: string
  /** Milliseconds from one text to the next. */
  everyMs: number
  /** The most texts of one day; null for as many as go. */
  perDay: number | null
  /** Since when it is there, where it may be new; null for one that has been there all along. */
  newSince: number | null
  /** What has gone to many over it on a day already, which counts into that day. */
  sent: { day: string, texts: number } | null
  /** What other bulk texts will send over it: what they leave of its rate is left to this one. */
  taken: Pick<PlanRun, 'from' | 'everyMs' | 'people'>[]
}

/** Instants are epoch milliseconds. */
export interface PlanAsked {
  start: number
  /** Whatever would leave from then on is left out; null where nothing is waited for. */
  event: number | null
  /** Over how many days it is spread, each from the hour of the start on. */
  days: number
  /** Whose days count. */
  zone: ZoneRules
  groups: PlanGroup[]
  lines: PlanLine[]
}

export type LeftWhy = 'after-event' | 'never-in-hours'

export interface Plan {
  runs: PlanRun[]
  /** When the last text leaves; null if none does. */
  last: number | null
  /** Who cannot be reached in time, or at all. */
  left: { groupId: string, people: number, why: LeftWhy }[]
}

/** Nothing is planned further ahead: whoever has so little room needs another line. */
const HORIZON_MS = 366 * 86_400_000

/**
 * When each text of a bulk text leaves. On every line, at each moment, it is the turn of those whose hours end soonest, so that
 * as few as possible wait for the next day; a line is idle only while nobody on it may be texted. Nobody is texted outside of
 * their hours, no line is over its rate, and nothing leaves from the event on.
 *
 * @throws RangeError for a group on a line that is not there, a rate or a number of days that is none
 */
export function makePlan(asked: PlanAsked): Plan {
  check(asked)
  const never = asked.groups.filter(({ zones, hours }) => nextReachable(asked.start, zones, hours) === null)
  const reachable = asked.groups.filter(group => !never.includes(group))
  const runs: PlanRun[] = []
  const after: Plan['left'] = []
  for (const line of asked.lines) {
    const planned = planLine(line, reachable.filter(({ lineId }) => lineId === line.id), asked)
    runs.push(...planned.runs)
    for (const [groupId, people] of planned.left) if (people > 0) after.push({ groupId, people, why: 'after-event' })
  }
  runs.sort((a, b) => a.from - b.from)
  return {
    runs,
    last: runs.length === 0 ? null : Math.max(...runs.map(lastOf)),
    left: [...never.map(({ id, people }) => ({ groupId: id, people, why: 'never-in-hours' as const })), ...after],
  }
}

/** One line after the other: what goes over one does not wait for another. */
function planLine(
  line: PlanLine,
  groups: PlanGroup[],
  { start, event, days, zone }: PlanAsked,
): { runs: PlanRun[], left: Map<string, number> } {
  const left = new Map(groups.map(({ id, people }) => [id, people]))
  const share = Math.ceil(groups.reduce((sum, { people }) => sum + people, 0) / days)
  const taken = [...line.taken].sort((a, b) => a.from - b.from)
  const end = Math.min(event ?? Infinity, start + HORIZON_MS)
  const runs: PlanRun[] = []
  const sentOn = new Map<string, number>()

  let at = start
  for (let waiting = groups; (waiting = waiting.filter(({ id }) => left.get(id)! > 0)).length > 0;) {
    const everyMs = roomAt(line.everyMs, taken, at)
    if (everyMs === null) {
      at = nextChange(taken, at)
      continue
    }
    if (at >= end) break
    const day = dayAt(zone, at)
    const [midnight, tomorrow] = [dayStart(zone, day), dayStart(zone, addDays(day, 1))]
    const before = line.sent?.day === day ? line.sent.texts : 0
    const others = taken.reduce((sum, run) => sum + countBetween(run, midnight, tomorrow), before)
    const sent = sentOn.get(day) ?? 0
    const room = Math.min(share - sent, mostOn(line, midnight) - others - sent)
    if (room <= 0) {
      at = days > 1 ? sameTimeOn(addDays(day, 1), start, zone) : tomorrow
      continue
    }
    const closings = new Map(waiting.map(group => [group, reachableUntil(at, group.zones, group.hours)]))
    const open = waiting.filter(group => closings.get(group) !== null)
    const openings = waiting.filter(group => closings.get(group) === null)
      .map(({ zones, hours }) => nextReachable(at, zones, hours)?.getTime() ?? Infinity)
    if (open.length === 0) {
      at = Math.min(...openings)
      continue
    }
    const group = open.reduce((soonest, one) => closings.get(one)! < closings.get(soonest)! ? one : soonest)
    const until = Math.min(closings.get(group)!, end, tomorrow, nextChange(taken, at), ...openings)
    const people = Math.min(left.get(group.id)!, room, Math.ceil((until - at) / everyMs))
    runs.push({ groupId: group.id, lineId: line.id, from: at, everyMs, people })
    left.set(group.id, left.get(group.id)! - people)
    sentOn.set(day, sent + people)
    at += people * everyMs
  }
  return { runs, left }
}

/** The most that a line sends on a day. */
const mostOn = ({ perDay, newSince }: PlanLine, midnight: number): number =>
  Math.min(perDay ?? Infinity, mostWhileNew(newSince, midnight) ?? Infinity)

type Taken = PlanLine['taken']
const endOf = ({ from, people, everyMs }: Taken[number]) => from + people * everyMs

/** How far apart texts leave of what others leave of the line's rate at a moment; null where they leave nothing. */
function roomAt(everyMs: number, taken: Taken, at: number): number | null {
  const others = taken.filter(run => run.from <= at && at < endOf(run)).reduce((sum, run) => sum + 1 / run.everyMs, 0)
  const left = 1 / everyMs - others
  return left <= HARDLY / everyMs ? null : Math.ceil(1 / left - HARDLY)
}
/** What sums of fractions are out by. */
const HARDLY = 1e-9

/** When another bulk text begins or ends on the line next. */
const nextChange = (taken: Taken, at: number): number =>
  Math.min(Infinity, ...taken.flatMap(run => [run.from, endOf(run)]).filter(change => change > at))

/** The hour of the start on another day; where clocks are put forward over it, right after. */
function sameTimeOn(day: string, start: number, zone: ZoneRules): number {
  const found = instantOf(`${day}T${wallOf(start, zone).slice(11)}`, zone)
  if (found.ok) return found.instant
  const later = found.reason === 'gap' ? instantOf(found.next, zone) : found
  return later.ok ? later.instant : dayStart(zone, day)
}

function check({ groups, lines, days }: PlanAsked): void {
  if (!Number.isInteger(days) || days < 1) throw new RangeError(`It cannot be spread over ${days} days: give a whole number from 1.`)
  for (const { id, everyMs, perDay } of lines) {
    if (!(everyMs > 0)) throw new RangeError(`The line ${id} has no rate: give the milliseconds from one text to the next.`)
    if (perDay !== null && perDay < 1) throw new RangeError(`The line ${id} sends nothing in a day.`)
  }
  for (const { id, lineId } of groups) {
    if (!lines.some(line => line.id === lineId)) throw new RangeError(`The people ${id} are on the line ${lineId}, which is not among the lines.`)
  }
}
