import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { scopeOf, type Asker, type Permission } from '~~/shared/permissions'
import { uuidArray } from '../db/instants'

/** Where a table says to whom its rows belong. */
export interface BelongsColumns { owner: SQLWrapper, team: SQLWrapper }

/**
 * The rows on which somebody holds a right, as a condition. It reads the same table as `can()`, and a
 * property test holds the two alike.
 */
export function visible(asker: Asker, permission: Permission, { owner, team }: BelongsColumns): SQL {
  const own = sql`${owner} = ${asker.id}::uuid`
  const teams = sql`(${own} or ${team} = any(${uuidArray(asker.teamIds)}))`
  switch (scopeOf(asker, permission)) {
    case 'all': return sql`true`
    case 'people': return sql`(${teams} or ${owner} = any(${uuidArray(asker.peopleIds)}))`
    case 'team': return teams
    case 'own': return own
    case 'none': return sql`false`
  }
}

/** Whether somebody may see a record, by the name that it has in a query. */
export const seesRecord = (asker: Asker, alias: string): SQL =>
  visible(asker, 'record.see', { owner: sql.raw(`${alias}.owner_id`), team: sql.raw(`${alias}.team_id`) })
