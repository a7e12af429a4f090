import { and, eq, sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { message } from '../db/schema'
import { endJob } from '../jobs/change'
import { HAND_OVER } from '../jobs/kinds'
import { freeHeld } from '../money/settle'
import { announceMessage } from './announce'
import { oweAnswer } from './owed'

/** Takes back those of several texts that still wait; claiming one is the same kind of update, so one of the two wins. */
export async function takeBackWaiting(messageIds: string[], now: Date): Promise<string[]> {
  return tx(async (database) => {
    const taken = await database.update(message)
      .set({ state: 'taken-back', settledAt: now })
      .where(and(sql`${message.id} = any(${uuidArray(messageIds)})`, eq(message.state, 'waiting')))
      .returning({ id: message.id, conversationId: message.conversationId, answersSince: message.answersSince })
    await freeHeld(taken.map(({ id }) => id))
    for (const { id, conversationId, answersSince } of taken) {
      await endJob(HAND_OVER, id, now)
      if (answersSince) await oweAnswer(conversationId, answersSince)
      await announceMessage(id)
    }
    return taken.map(({ id }) => id)
  })
}
