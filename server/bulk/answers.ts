import { sql } from 'drizzle-orm'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { bulkPerson, bulkText, conversation, message } from '../db/schema'
import { announceBulk } from './one'

/** What comes in later than this is hardly an answer to it any more (common practice). */
export const ANSWERS_WITHIN_DAYS = 14
export const ANSWERS_WITHIN = sql.raw(`interval '${ANSWERS_WITHIN_DAYS} days'`)

/**
 * Whoever writes after a bulk text has gone to them has answered it, the first time that they do, over whichever line. Of
 * those who were held back it is noted too, from the moment at which it was started: so many would have written anyway.
 */
export async function noteAnswer(conversationId: string, now: Date): Promise<void> {
  const { rows } = await ask<{ id: string, madeBy: string }>(sql`
    update ${bulkPerson} p set answered_at = ${at(now)}
    from ${conversation} c, ${bulkText} b, ${bulkPerson} q left join ${message} m on m.id = q.id
    where c.id = ${conversationId}::uuid and q.e164 = c.remote and q.standing in ('texted', 'held-out') and q.answered_at is null
      and p.id = q.id and b.id = q.bulk_id
      and case q.standing when 'texted' then m.handed_at else b.started_at end between ${at(now)} - ${ANSWERS_WITHIN} and ${at(now)}
    returning b.id, b.made_by as "madeBy"`)
  for (const bulk of rows) announceBulk(bulk)
}
