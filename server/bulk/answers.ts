import { sql } from 'drizzle-orm'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { bulkPerson, bulkText, conversation, message } from '../db/schema'
import { announceBulk } from './one'

/** What comes in later than this is hardly an answer to it any more (common practice). */
export const ANSWERS_WITHIN_DAYS = 14
export const ANSWERS_WITHIN = sql.raw(`interval '${ANSWERS_WITHIN_DAYS} days'`)

/**
 * Whoever writes after a bulk text has gone to them has answered it, the first time that they do. Of those who were held back
 * it is noted too: so many would have written anyway.
 */
export async function noteAnswer(conversationId: string, now: Date): Promise<void> {
  const { rows } = await ask<{ id: string, madeBy: string }>(sql`
    update ${bulkPerson} p set answered_at = ${at(now)}
    from ${message} m, ${bulkText} b
    where m.conversation_id = ${conversationId}::uuid and m.origin = 'bulk' and m.handed_at < ${at(now)}
      and m.handed_at > ${at(now)} - ${ANSWERS_WITHIN} and p.id = m.id and p.answered_at is null and b.id = p.bulk_id
    returning b.id, b.made_by as "madeBy"`)
  await ask(sql`
    update ${bulkPerson} p set answered_at = ${at(now)}
    from ${conversation} c, ${bulkText} b
    where c.id = ${conversationId}::uuid and p.e164 = c.remote and p.standing = 'held-out' and p.answered_at is null and b.id = p.bulk_id
      and b.started_at < ${at(now)} and b.started_at > ${at(now)} - ${ANSWERS_WITHIN}`)
  for (const bulk of rows) announceBulk(bulk)
}
