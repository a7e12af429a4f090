import { and, eq, isNotNull, or, sql } from 'drizzle-orm'
import { isE164 } from '~~/core/phone/e164'
import { OWED_FOR_A_CALL } from '~~/core/owed/owed'
import { can } from '~~/shared/permissions'
import { ask, tx } from '../db/door'
import { at } from '../db/instants'
import { activity, call, conversation, conversationEvent, line, message, recording } from '../db/schema'
import { colleagueAtWork } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { CAME_IN } from '../jobs/kinds'
import { announceConversation, openConversation } from '../texting/conversations'
import { lineBelongs } from '../texting/lines'
import { owe } from '../texting/owed'
import type { StoredCall } from './stored'

/**
 * A call that nobody took, or that left a message, owes an answer as a text does. What came to us late, after the answer to
 * it, makes nothing owed; whoever hides their number can be answered by nobody.
 */
export async function oweCall({ id, activityId, direction, colleagueId, lineId, remote, madeAt, endedAt }: StoredCall): Promise<void> {
  if (direction !== 'in' || colleagueId || !endedAt || !isE164(remote)) return
  await tx(async (database) => {
    const conversationId = await openConversation(lineId, remote, endedAt)
    const [found] = await database.select({ conversation, line }).from(conversation).innerJoin(line, eq(line.id, conversation.lineId))
      .where(eq(conversation.id, conversationId)).for('update', { of: conversation })
    const [message] = await database.select({ id: recording.id }).from(recording)
      .where(and(eq(recording.callId, id), eq(recording.of, 'message')))
    // while it still rang with others somebody may have written why they cannot talk; what was said to the mailbox came after it
    if (await settledSince(conversationId, message ? endedAt : madeAt)) return
    await owe(found!.conversation, { kind: message ? 'voicemail' : 'missed-call', at: endedAt.getTime() })
    await addJob({
      kind: CAME_IN,
      key: id,
      lane: conversationId,
      payload: { conversationId, what: message ? 'voicemail' : 'missed-call', activityId, at: endedAt.getTime() },
      dueAt: endedAt,
    })
    announceConversation(conversationId, found!.line, true)
  })
}

/** Whether a colleague has written, talked with them or said that nothing is needed, after an instant. */
async function settledSince(conversationId: string, since: Date): Promise<boolean> {
  const { rows } = await ask(sql`
    select 1 from ${conversation} v where v.id = ${conversationId}::uuid and (
      exists (select 1 from ${message} m where m.conversation_id = v.id and m.direction = 'out' and m.author_id is not null
        and m.state <> 'taken-back' and m.made_at > ${at(since)})
      or exists (select 1 from ${call} k where k.remote = v.remote and k.line_id = v.line_id and k.colleague_id is not null
        and k.answered_by = 'person' and k.answered_at > ${at(since)})
      or exists (select 1 from ${conversationEvent} e join ${activity} a on a.id = e.activity_id
        where e.conversation_id = v.id and a.kind = 'nothing-needed' and e.at > ${at(since)}))`)
  return rows.length > 0
}

/**
 * Whoever talks with them answers what is owed over the call's line, and the calls that came in on any other line that they
 * answer: the one called back over need not be the one that rang.
 */
export async function answeredByTalk({ remote, lineId, colleagueId }: StoredCall, answeredAt: number): Promise<void> {
  const asker = colleagueId && await colleagueAtWork(colleagueId)
  if (!asker) return
  await tx(async (database) => {
    const open = await database.select({ conversation, line }).from(conversation).innerJoin(line, eq(line.id, conversation.lineId))
      .where(and(eq(conversation.remote, remote), or(isNotNull(conversation.waitsSince), isNotNull(conversation.returnsAt))))
      .orderBy(conversation.id).for('update', { of: conversation })
    for (const one of open) {
      const isForCall = OWED_FOR_A_CALL.some(why => why === one.conversation.waitsFor)
      if (one.line.id !== lineId && !(isForCall && can(asker, 'line.answer', lineBelongs(one.line)))) continue
      await owe(one.conversation, { kind: 'talked', at: answeredAt })
      announceConversation(one.conversation.id, one.line)
    }
  })
}
