import { eq, sql } from 'drizzle-orm'
import { dayAt, dayStart } from '~~/core/hours/days'
import { nextReachable, reachableUntil } from '~~/core/hours/reachable'
import { zoneRules } from '~~/core/hours/zones'
import type { ReachHours } from '~~/core/hours/week'
import { hoursOf, wishOf } from '~~/core/hours/wish'
import { busiestHour } from '~~/core/plan/answers'
import { latestStart } from '~~/core/plan/latest'
import { mostWhileNew } from '~~/core/plan/new-line'
import { makePlan, type Plan, type PlanAsked, type PlanGroup } from '~~/core/plan/plan'
import { lastOf, type PlanRun } from '~~/core/plan/run'
import type { BulkPlan, Closed, ExpectedAnswers, PlanPlace } from '~~/shared/bulk-texts'
import type { StartBulkForm } from '~~/shared/schemas/bulk-text'
import { ask, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { bulkGroup, bulkPerson, colleague, line, teamMember } from '../db/schema'
import { readHouse, type House } from '../hours/house'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { linesOf } from '../texting/lines'
import { planLines } from './lines'
import { mustSeeBulk, type StoredBulk } from './one'

/** People of a bulk text who may be texted in the same hours over the same line. */
export interface StoredGroup {
  name: string
  lineId: string
  zones: string
  places: string
  wishFrom: number | null
  wishTo: number | null
  people: number
}

/** Those that are ready now, by where they may be, their wish and their line. */
export async function readyGroups(bulkId: string): Promise<StoredGroup[]> {
  const { rows } = await ask<Omit<StoredGroup, 'name'> & Record<string, unknown>>(sql`
    select line_id as "lineId", zones, places, wish_from as "wishFrom", wish_to as "wishTo", count(*)::int as people from ${bulkPerson}
    where bulk_id = ${bulkId}::uuid and standing = 'ready' group by 1, 2, 3, 4, 5 order by 2, 3, 4 nulls first, 5 nulls first, 1`)
  return rows.map(row => ({ ...row, name: `${row.zones} ${row.places} ${row.wishFrom ?? ''}-${row.wishTo ?? ''} ${row.lineId}` }))
}

const planGroupOf = ({ name, lineId, zones, places, wishFrom, wishTo, people }: StoredGroup, house: House): PlanGroup =>
  ({ id: name, lineId, zones: listOf(zones), hours: hoursOf(wishOf({ wishFrom, wishTo }), house(listOf(places))), people })

const listOf = (joined: string): string[] => joined.split(' ').filter(Boolean)

/** When each of those who are ready would leave, if it were started then. */
export async function planFrom(bulk: StoredBulk, zone: string, { start, days }: { start: number, days: number }, now: Date) {
  const groups = await readyGroups(bulk.id)
  const rules = zoneRules(zone) ?? zoneRules('Etc/UTC')!
  const house = await readHouse(now)
  const lines = await planLines(bulk, groups, rules, now)
  const asked = {
    event: bulk.eventAt?.getTime() ?? null,
    days,
    zone: rules,
    groups: groups.map(group => planGroupOf(group, house)),
    lines,
  }
  return { groups, house, lines, asked, plan: makePlan({ ...asked, start }) }
}

/** The same, as it is shown before it is started. */
export async function previewPlan(asker: SignedIn, id: string, asked: StartBulkForm, now: Date): Promise<BulkPlan> {
  return tx(async () => {
    const bulk = await mustSeeBulk(asker, id)
    const start = startOf(asked, now)
    const paced = { ...bulk, answersAnHour: asked.answersAnHour }
    const { groups, house, lines, plan, asked: all } = await planFrom(paced, asker.zone, { start, days: asked.days }, now)
    return {
      start,
      days: asked.days,
      event: bulk.eventAt?.getTime() ?? null,
      runs: plan.runs,
      last: plan.last,
      latestStart: latestStart(all, now.getTime()),
      left: plan.left.map(({ why, people }) => ({ why, people })),
      spread: await ifSpread(asker, paced, { groups, house }, { ...all, start }, now),
      places: placesShown(groups, house, plan.runs, start),
      expected: await expectedOf(bulk, plan.runs, lines.map(({ id: lineId }) => lineId)),
      lines: lines.map(({ id: lineId, name, everyMs, perDay, newSince }) => ({
        id: lineId,
        name,
        everyMs,
        perDay,
        newMost: mostWhileNew(newSince, dayStart(all.zone, dayAt(all.zone, start))),
        people: groups.filter(group => group.lineId === lineId).reduce((sum, { people }) => sum + people, 0),
      })),
    }
  })
}

const tooLate = ({ left }: Plan): number => left.filter(({ why }) => why === 'after-event').reduce((sum, { people }) => sum + people, 0)

/** What it would come to, were it spread over all of the asker's lines that suit; null where that helps nothing. */
async function ifSpread(
  asker: SignedIn,
  bulk: StoredBulk,
  { groups, house }: { groups: StoredGroup[], house: House },
  asked: PlanAsked,
  now: Date,
): Promise<BulkPlan['spread']> {
  const before = tooLate(makePlan(asked))
  if (before === 0 || bulk.lineId !== null || bulk.spread || bulk.answersId) return null
  const mine = (await linesOf(asker)).filter(one => one.active && !one.private)
  const countryOf = new Map(mine.map(({ id, country }) => [id, country]))
  const spread = groups.flatMap((group) => {
    const there = mine.filter(({ country }) => country === countryOf.get(group.lineId))
    return there.map(({ id }, i) => ({
      ...planGroupOf(group, house), id: `${group.name} ${id}`, lineId: id, people: Math.floor((group.people + i) / there.length),
    }))
  })
  const lines = await planLines(bulk, spread, asked.zone, now)
  const left = tooLate(makePlan({ ...asked, groups: spread, lines }))
  return left < before ? { lines: lines.map(({ name }) => name), left } : null
}

/** How many answers would come back, and who is there for them. */
async function expectedOf({ brought }: StoredBulk, runs: PlanRun[], lineIds: string[]): Promise<ExpectedAnswers> {
  const { rows: [found] } = await ask<{ people: number }>(sql`
    select count(distinct c.id)::int as people from ${line} l left join ${teamMember} t on t.team_id = l.team_id
      join ${colleague} c on c.id = coalesce(l.colleague_id, t.colleague_id)
    where l.id = any(${uuidArray(lineIds)})`)
  return {
    brought: { hits: brought?.answered ?? 0, of: brought?.texted ?? 0 },
    medianMs: brought?.delays[4] ?? null,
    busiest: busiestHour(runs, brought),
    answering: found!.people,
  }
}

/**
 * When it is to start: at the earliest now.
 *
 * @throws Problem 422 for what lies more than a year ahead
 */
export function startOf({ start }: Pick<StartBulkForm, 'start'>, now: Date): number {
  if (start !== null && start > now.getTime() + YEAR) throw badInput({ start: 'That is more than a year ahead. Choose an earlier day.' })
  return Math.max(now.getTime(), start ?? 0)
}

const HOUR = 3_600_000
const YEAR = 366 * 24 * HOUR
const [SHOWN_BEFORE, SHOWN_AFTER] = [6 * HOUR, 24 * HOUR]

/** Where its people are, with the hours there around the time in which it runs in which nobody is texted; the most of them first. */
export function placesShown(
  groups: StoredGroup[],
  house: House,
  runs: PlanRun[],
  start = Math.min(...runs.map(({ from }) => from)),
): PlanPlace[] {
  const until = Math.max(start, ...runs.map(lastOf)) + SHOWN_AFTER
  const shown = new Map<string, PlanPlace>()
  for (const { name, zones, places, people } of groups) {
    const closed = Number.isFinite(start) ? closedIn(listOf(zones), house(listOf(places)), start - SHOWN_BEFORE, until) : []
    const key = `${zones} ${JSON.stringify(closed)}`
    const known = shown.get(key) ?? { zones: listOf(zones), regions: [], people: 0, groupIds: [], closed }
    const regions = [...new Set([...known.regions, ...listOf(places)])]
    shown.set(key, { ...known, regions, people: known.people + people, groupIds: [...known.groupIds, name] })
  }
  return [...shown.values()].sort((a, b) => b.people - a.people)
}

/** When nobody is texted at a place. */
function closedIn(zones: string[], hours: ReachHours, from: number, until: number): Closed[] {
  const closed: Closed[] = []
  for (let at = from; at < until;) {
    const ends = reachableUntil(at, zones, hours)
    if (ends === null) {
      const opens = nextReachable(at, zones, hours)?.getTime() ?? until
      closed.push({ from: at, to: Math.min(opens, until) })
      at = opens
    }
    else at = ends
  }
  return closed
}

/** Keeps how those who are ready are grouped; nobody of them has had their turn. */
export async function storeGroups(bulk: Pick<StoredBulk, 'id'>, groups: StoredGroup[]): Promise<void> {
  await tx(async (database) => {
    await database.delete(bulkGroup).where(eq(bulkGroup.bulkId, bulk.id))
    if (groups.length > 0) await database.insert(bulkGroup).values(groups.map(group => ({ ...group, bulkId: bulk.id })))
  })
}
