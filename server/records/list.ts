import { sql, type SQL } from 'drizzle-orm'
import { NO_CONDITIONS, readConditions, type Conditions } from '~~/core/conditions/conditions'
import { dayAt } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import type { Permission } from '~~/shared/permissions'
import type { RecordPage } from '~~/shared/record'
import type { Selection } from '~~/shared/schemas/list'
import type { RecordQuery } from '~~/shared/schemas/record'
import { uuidArray } from '../db/instants'
import { withOwnPlans } from '../db/own-plan'
import { colleague, record } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../identity/visible'
import { broughtBy } from '../imports/brought'
import { joinCompany } from './company'
import { sqlColumnsOf, type SqlColumn } from './columns'
import { holds } from './conditions'
import { quickFilter } from './quick-filter'
import { rowOf, rowsFor, type Row } from './rows'

const SIZE = 50

/** Which records a list means, in which order. */
export interface Chosen {
  /** Records `r`, with their `company` and their owner `o`. */
  from: SQL
  where: SQL
  order: SQL
  /** What is shown of them. */
  rows: SQL
}

/**
 * What somebody asks a list for, as SQL. Lists, exports and changes of many all read it here, and so
 * nobody gets at more by one of them than by another.
 *
 * @throws Problem 422 for a column or a condition that does not exist
 */
export async function chosenBy(asker: SignedIn, query: Omit<RecordQuery, 'page'>, now: Date, permission: Permission = 'record.see'): Promise<Chosen> {
  const columns = await sqlColumnsOf(asker, query.module)
  const sort = columns.get(query.sort)
  if (!sort) throw badInput({ sort: `${query.module} records have no column “${query.sort}”. Choose another one to sort by.` })
  const zone = zoneRules(asker.zone) ?? zoneRules('Etc/UTC')!
  const mine = visible(asker, permission, { owner: sql`r.owner_id`, team: sql`r.team_id` })
  return {
    from: sql`${record} r ${joinCompany(asker)} left join ${colleague} o on o.id = r.owner_id`,
    where: sql`r.module = ${query.module} and ${mine} and ${quickFilter(query.words)} and ${holds(conditionsOf(query.where, columns), columns, { day: dayAt(zone, now.getTime()), zone })}`,
    order: orderBy(sort, query.direction),
    rows: rowsFor(asker),
  }
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

/** What is empty comes last whichever way; where nothing can be, an index serves both ways. */
function orderBy({ order, mayBeEmpty }: SqlColumn, direction: RecordQuery['direction']): SQL {
  if (mayBeEmpty) return direction === 'up' ? sql`${order} asc nulls last, r.id` : sql`${order} desc nulls last, r.id`
  return direction === 'up' ? sql`${order}, r.id` : sql`${order} desc, r.id desc`
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

/** What a page asks of the database. Exported for the bench, which runs the same statements bare. */
export function pageQueries({ from, where, order, rows }: Chosen, page: number): { count: SQL, rows: SQL } {
  // limits stand in the words: with an unknown limit the database would rather sort everything
  const [size, offset] = [sql.raw(String(SIZE)), sql.raw(String((page - 1) * SIZE))]
  return {
    count: sql`select count(*)::int as total from ${from} where ${where}`,
    // first which ones, then what of them is shown: numbers are looked up for a page, not for all that are sorted
    rows: sql`
      with page as (select r.id, row_number() over (order by ${order}) as place from ${from} where ${where} order by ${order} limit ${size} offset ${offset})
      ${rows} join page on page.id = r.id order by page.place`,
  }
}

/** One page of a module's records that somebody may see. */
export async function listRecords(asker: SignedIn, query: RecordQuery, now: Date): Promise<RecordPage> {
  const { count, rows: page } = pageQueries(await chosenBy(asker, query, now), query.page)
  return withOwnPlans(async (database) => {
    const { rows: [counted] } = await database.execute<{ total: number }>(count)
    const { rows } = await database.execute<Row>(page)
    return { rows: rows.map(rowOf), total: counted!.total, page: query.page, size: SIZE }
  })
}
