import { and, eq, isNotNull, lte } from 'drizzle-orm'
import { afterEvent, type Owed, type OwedEvent } from '~~/core/owed/owed'
import type { PutBackForm } from '~~/shared/schemas/inbox'
import { tx } from '../db/door'
import { conversation, line } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { RETURN_CONVERSATION } from '../jobs/kinds'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { announceConversation, mustAnswer, tellOf } from './conversations'
import { leavesAtOf } from './schedule'

type Stored = typeof conversation.$inferSelect

const owedOf = ({ waitsSince, waitsFor, returnsAt }: Stored): Owed =>
  ({ since: waitsSince?.getTime() ?? null, why: waitsFor, returnsAt: returnsAt?.getTime() ?? null })

/** What is owed after something has happened, by the rules of core/owed. The row is locked by whoever asks. */
export async function owe(stored: Stored, event: OwedEvent): Promise<Owed> {
  const owed = afterEvent(owedOf(stored), event)
  const instant = (at: number | null) => at === null ? null : new Date(at)
  await tx(database => database.update(conversation)
    .set({ waitsSince: instant(owed.since), waitsFor: owed.why, returnsAt: instant(owed.returnsAt) })
    .where(eq(conversation.id, stored.id)))
  return owed
}

/** A text came in that wants an answer, or the answer to it was taken back. */
export async function oweAnswer(conversationId: string, at: Date): Promise<void> {
  await tx(async (database) => {
    const [stored] = await database.select().from(conversation).where(eq(conversation.id, conversationId)).for('update')
    await owe(stored!, { kind: 'text-in', at: at.getTime() })
  })
}

/**
 * "Nothing to answer": a colleague says so, and it is kept who and when. What nothing is owed of stays as it is.
 *
 * @throws Problem 404 if its line is not mine to answer
 */
export async function settleConversation(asker: SignedIn, conversationId: string, now: Date): Promise<void> {
  await tx(async () => {
    const found = await mustAnswer(asker, conversationId)
    const { waitsSince, returnsAt } = found.conversation
    if (!waitsSince && !returnsAt) return
    await owe(found.conversation, { kind: 'nothing-needed', at: now.getTime() })
    await tellOf(found, { kind: 'nothing-needed', colleagueId: asker.id }, now)
  })
}

/**
 * Puts a conversation back: an answer is owed again, from now on or from a moment to come, with a word why.
 *
 * @throws Problem 404 if its line is not mine to answer, 422 for a moment that has passed
 */
export async function putBack(asker: SignedIn, conversationId: string, { later, why }: PutBackForm, now: Date): Promise<void> {
  await tx(async () => {
    const found = await mustAnswer(asker, conversationId)
    const moment = later && leavesAtOf(later, now)
    await owe(found.conversation, { kind: 'put-back', at: now.getTime(), until: moment?.getTime() ?? null })
    if (moment)
      await addJob({
        kind: RETURN_CONVERSATION,
        key: `${conversationId} ${moment.getTime()}`,
        payload: { conversationId },
        dueAt: moment,
      })
    await tellOf(found, { kind: 'put-back', colleagueId: asker.id, data: { ...later }, ...(why && { words: why }) }, now)
  })
}

/** The moment has come for which a conversation was put back; one that was answered or put back anew meanwhile stays as it is. */
export const returnConversations: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  await bringBack(claim, now())
  return 'done'
}))

async function bringBack({ payload }: Claim, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select({ conversation, line }).from(conversation).innerJoin(line, eq(line.id, conversation.lineId))
      .where(and(eq(conversation.id, String(payload.conversationId)), isNotNull(conversation.returnsAt), lte(conversation.returnsAt, now)))
      .for('update', { of: conversation })
    if (!found) return
    await owe(found.conversation, { kind: 'due', at: now.getTime() })
    announceConversation(found.conversation.id, found.line, true)
  })
}
