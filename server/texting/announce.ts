import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { activityOnRecord, conversation, line, message, record } from '../db/schema'
import { announce } from '../live/notices'
import { announceConversation } from './conversations'

/** A message has changed: its entry looks different on every timeline it is on. */
export async function announceMessage(messageId: string): Promise<void> {
  await tx(async (database) => {
    const shown = await database
      .select({ activityId: message.activityId, conversationId: message.conversationId, recordId: activityOnRecord.recordId, ownerId: record.ownerId, teamId: record.teamId, line })
      .from(message)
      .innerJoin(conversation, eq(conversation.id, message.conversationId))
      .innerJoin(line, eq(line.id, conversation.lineId))
      .leftJoin(activityOnRecord, eq(activityOnRecord.activityId, message.activityId))
      .leftJoin(record, eq(record.id, activityOnRecord.recordId))
      .where(eq(message.id, messageId))
    for (const { recordId, activityId, ownerId, teamId } of shown) {
      if (recordId) announce({ kind: 'entry', recordId, activityId }, 'record.see', [{ ownerId, teamId }])
    }
    if (shown[0]) announceConversation(shown[0].conversationId, shown[0].line)
  })
}
