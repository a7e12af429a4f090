import { eq, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { v7 as uuid } from 'uuid'
import { mayLeaveElsewhere, whyNotStandIn } from '~~/core/lines/stand-in'
import { measureText } from '~~/core/text/measure'
import { carrierRegistered } from '../carriers/registry'
import { once, read, tx } from '../db/door'
import { at } from '../db/instants'
import { activityContent, conversation, line, message, textMessage } from '../db/schema'
import { covering, IS_COVERED } from '../money/in-sql'
import { holdAnew } from '../money/settle'
import { announceConversation } from './conversations'

/**
 * Puts a text that no carrier has taken into the hands of the line that stands in for its own, where an admin has said that one does.
 * It is a text of that line then, with an answer to be expected there, and keeps which line it was meant for.
 *
 * @returns whether another carrier is asked from now on
 */
export async function leaveOverStandIn(messageId: string, now: Date): Promise<boolean> {
  const asked = await readText(messageId)
  if (!asked) return false
  const { text, own, other } = asked
  if (!mayLeaveElsewhere(text) || !other.active || whyNotStandIn(own, other)) return false
  const carrier = carrierRegistered(other.carrier)
  if (!carrier || carrier.state?.()?.is === 'away') return false
  const { encoding, shift, units, parts } = measureText(text.words ?? '', other.languages)
  return tx(async (database) => {
    const { rows: [moved] } = await once<{ id: string, currency: string | null, micros: number | null }>(sql`
      with ${covering({ lineId: sql`${other.id}::uuid`, pictures: sql`0`, parts: sql`${parts}::int`, always: sql`${text.authorId}::uuid is null` })},
      talk as (
        insert into ${conversation} as v (id, kind, line_id, remote, last_at, went_out)
          select ${uuid()}::uuid, 'text', ${other.id}::uuid, ${text.remote}, ${at(now)}, true where ${IS_COVERED}
        on conflict (line_id, remote) do update set last_at = greatest(v.last_at, excluded.last_at), went_out = true, bulk_only = false
        returning id
      ), told as (
        update ${message} m set conversation_id = talk.id, meant_line_id = coalesce(m.meant_line_id, ${own.id}::uuid), trying_since = null
        from talk where m.id = ${messageId}::uuid and m.state = 'waiting' returning m.id
      )
      select told.id, purse.currency, purse.micros::float8 as micros from told left join purse on true`)
    if (!moved) return false
    await database.update(textMessage).set({ encoding, shift, units, parts }).where(eq(textMessage.messageId, messageId))
    const cost = moved.currency === null ? null : { currency: moved.currency, micros: moved.micros! }
    await holdAnew({ messageId, colleagueId: text.authorId, lineId: other.id }, cost, now)
    await clearAway(text.conversationId)
    announceConversation(text.conversationId, own)
    return true
  })
}

async function readText(messageId: string) {
  const other = alias(line, 'other')
  const [found] = await read(database => database
    .select({
      text: {
        authorId: message.authorId, origin: message.origin, pictures: message.pictures, conversationId: message.conversationId,
        remote: conversation.remote, words: activityContent.words,
      },
      own: line,
      other,
    })
    .from(message)
    .innerJoin(conversation, eq(conversation.id, message.conversationId))
    .innerJoin(line, eq(line.id, conversation.lineId))
    .innerJoin(other, eq(other.id, line.standInId))
    .leftJoin(activityContent, eq(activityContent.activityId, message.activityId))
    .where(eq(message.id, messageId)))
  return found ?? null
}

/** Where nothing else was ever said, nothing lies in the inbox. */
async function clearAway(conversationId: string): Promise<void> {
  await once(sql`
    update ${conversation} v set bulk_only = true where v.id = ${conversationId}::uuid and not v.came_in
      and not exists (select 1 from ${message} m where m.conversation_id = v.id)`)
}
