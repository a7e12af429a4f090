import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import { line } from '../db/schema'
import { visible } from '../identity/visible'

/** Entries show to all who see the record, but for those that went over somebody's private line. */
export function mayReadLine(asker: Asker, privateLine: SQLWrapper): SQL {
  return sql`(${privateLine} is null or ${privateLine} in (select pl.id from ${line} pl where ${visible(asker, 'line.answer', { owner: sql`pl.colleague_id`, team: sql`pl.team_id` })}))`
}
