import { sql, type SQL } from 'drizzle-orm'
import { NO_CONDITIONS, readConditions, type Conditions } from '~~/core/conditions/conditions'
import { dayAt } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import type { Permission } from '~~/shared/permissions'
import type { RecordPage } from '~~/shared/record'
import type { Selection } from '~~/shared/schemas/list'
import type { RecordQuery } from '~~/shared/schemas/record'
import { ask } from '../db/door'
import { uuidArray } from '../db/instants'
import { planned } from '../db/prepared'
import { record } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { broughtBy } from '../reading/brought'
import { joinCompany } from '../reading/company'
import { joinContact } from '../reading/contact'
import { sqlColumnsOf, type SqlColumn } from './columns'
import { holds } from './conditions'
import { withGroups } from './groups/of-records'
import { quickFilter } from './quick-filter'
import { rowsWith } from './rows'
import { orderOf, stretchesOf, type Direction, type Walk } from './walk'

const SIZE = 50

/** Which records a list means, in which order. */
export interface Chosen {
  /** Records `r`, with their `company` and their last `contact`. */
  from: SQL
  where: SQL
  order: SQL
  /** The same order, as a way to a page of them. */
  walk: Walk
  direction: Direction
}

/**
 * What somebody asks a list for, as SQL. Lists, exports and changes of many all read it here, and so
 * nobody gets at more by one of them than by another.
 *
 * @throws Problem 422 for a column or a condition that does not exist
 */
export async function chosenBy(
  asker: SignedIn,
  query: Omit<RecordQuery, 'page'>,
  now: Date,
  permission: Permission = 'record.see',
): Promise<Chosen> {
  const columns = await sqlColumnsOf(asker, query.module)
  const sort = columns.get(query.sort)
  if (!sort) throw badInput({ sort: `${query.module} records have no column “${query.sort}”. Choose another one to sort by.` })
  const zone = zoneRules(asker.zone) ?? zoneRules('Etc/UTC')!
  const mine = visible(asker, permission, { owner: sql`r.owner_id`, team: sql`r.team_id` })
  const from = sql`${record} r ${joinCompany(asker)} ${joinContact}`
  const where = sql`r.module = ${query.module} and ${mine} and ${quickFilter(query.words)}
    and ${holds(conditionsOf(query.where, columns), columns, { day: dayAt(zone, now.getTime()), zone })}`
  return { from, where, order: orderOf(sort.walk, query.direction), walk: sort.walk, direction: query.direction }
}

/** The same, for what somebody has chosen in a list: single records, those that a file of theirs brought, or all that it holds. */
export async function chosenIn(asker: SignedIn, { list, ids, importId }: Selection, now: Date): Promise<Chosen> {
  const chosen = await chosenBy(asker, list, now)
  const among = [
    chosen.where,
    ...ids ? [sql`r.id = any(${uuidArray(ids)})`] : [],
    ...importId ? [sql`r.id = any(array(${broughtBy(asker, importId)}))`] : [],
  ]
  return { ...chosen, where: sql.join(among, sql` and `) }
}

export function conditionsOf(where: string, columns: Map<string, SqlColumn>): Conditions {
  if (where === '') return NO_CONDITIONS
  const read = readConditions(parsed(where), field => columns.get(field)?.kind ?? null)
  if (!read.ok) throw badInput({ [`where${read.problem.place && '.'}${read.problem.place}`]: read.problem.reason }, read.problem.reason)
  return read.conditions
}

function parsed(json: string): unknown {
  try {
    return JSON.parse(json)
  }
  catch {
    return null
  }
}

/** The ids of a page: those of the first stretch, and where it ends before the page does, those of the next. */
async function idsOf({ walk, direction, from, where }: Chosen, page: number): Promise<string[]> {
  let skip = (page - 1) * SIZE
  const ids: string[] = []
  for (const stretch of stretchesOf(walk, direction, { from, where })) {
    const { rows } = await ask<{ id: string }>(planned(stretch.ids(SIZE - ids.length, skip)))
    ids.push(...rows.map(({ id }) => id))
    if (ids.length === SIZE) break
    if (rows.length > 0) skip = 0
    else if (skip > 0) skip = Math.max(0, skip - await countOf(stretch.which))
  }
  return ids
}

async function countOf(which: SQL): Promise<number> {
  const { rows: [counted] } = await ask<{ total: number }>(planned(sql`select count(*)::int as total from ${which}`))
  return counted!.total
}

/** One page of a module's records that somebody may see. How many there are in all is asked apart: it takes longer. */
export async function listRecords(asker: SignedIn, query: RecordQuery & { groups?: boolean }, now: Date): Promise<RecordPage> {
  const ids = await idsOf(await chosenBy(asker, query, now), query.page)
  const rows = await rowsWith(asker, ids)
  return { rows: query.groups ? await withGroups(asker, query.module, rows, now) : rows, page: query.page, size: SIZE }
}

export async function countRecords(asker: SignedIn, query: Omit<RecordQuery, 'page'>, now: Date): Promise<{ total: number }> {
  const { from, where } = await chosenBy(asker, query, now)
  return { total: await countOf(sql`${from} where ${where}`) }
}
