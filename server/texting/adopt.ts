import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { activity, conversation, line, message } from '../db/schema'
import { showOnRecords } from '../timeline/append'
import { touchContact } from './contact'

/** A number that was on no record has one now: the whole conversation shows on its timeline. */
export async function adoptConversations(e164: string, recordId: string): Promise<void> {
  await tx(async (database) => {
    const entries = await database
      .select({ id: activity.id, at: activity.at, private: line.private, lineId: line.id })
      .from(message)
      .innerJoin(activity, eq(activity.id, message.activityId))
      .innerJoin(conversation, eq(conversation.id, message.conversationId))
      .innerJoin(line, eq(line.id, conversation.lineId))
      .where(eq(conversation.other, e164))
    for (const entry of entries) {
      await showOnRecords({ id: entry.id, at: entry.at, privateLineId: entry.private ? entry.lineId : null }, [recordId])
      await touchContact(entry.id, entry.at)
    }
  })
}
