import { eq } from 'drizzle-orm'
import { FOR_THE_HOUR, MAY_BE_LET_GO, type HoldReason } from '~~/core/message/hold'
import { tx } from '../db/door'
import { activityContent, conversation, line, message } from '../db/schema'
import { can } from '~~/shared/permissions'
import { conflict, notFound } from '../http/problem'
import type { TakenBack } from '~~/shared/texting'
import type { SignedIn } from '../identity/sign-in'
import { endJob, openJobAgain } from '../jobs/change'
import { HAND_OVER } from '../jobs/kinds'
import { announceConversation } from './conversations'
import { move } from './hand-over'
import { lineBelongs } from './lines'
import { oweAnswer } from './owed'
import { takePicturesBack } from './pictures'

/**
 * Takes a text back while it waits. Claiming it is the same kind of conditional update, so one of the
 * two wins.
 *
 * @returns what it was made of, for the composer
 * @throws Problem 409 if it has left
 */
export async function takeBack(asker: SignedIn, messageId: string, now: Date): Promise<TakenBack> {
  return tx(async () => {
    const found = await mustBeMine(asker, messageId)
    if (!await move(messageId, found.message.state, 'take-back', { settledAt: now })) {
      throw conflict('has-left', 'It has left', 'The text has already left and cannot be taken back. Send another one to put it right.')
    }
    await endJob(HAND_OVER, messageId, now)
    if (found.message.answersSince) await oweAnswer(found.message.conversationId, found.message.answersSince)
    announceConversation(found.message.conversationId, found.line)
    const { templateId, templateVersion, ref, wallTime, wallZone } = found.message
    return {
      text: found.words ?? '',
      pictureIds: await takePicturesBack(messageId),
      templateId,
      templateVersion,
      ref,
      later: wallTime ? { wallTime, zone: wallZone! } : null,
    }
  })
}

/**
 * Lets a text go that was held for the hour, or because its moment had passed: a person has said so, for this one text.
 * One that Plauder wrote by itself is let go by whoever answers its line.
 *
 * @throws Problem 409 if it is not held for that reason
 */
export async function letGo(asker: SignedIn, messageId: string, now: Date): Promise<void> {
  await tx(async () => {
    const found = await mustBeMine(asker, messageId)
    const reason = found.message.code as HoldReason
    const forTheHour = (FOR_THE_HOUR as readonly HoldReason[]).includes(reason)
    const released = {
      code: null,
      nightAllowed: forTheHour || found.message.nightAllowed,
      leavesAt: now,
      tryingSince: null,
      wallTime: null,
      wallZone: null,
    }
    if (!MAY_BE_LET_GO.includes(reason) || !await move(messageId, found.message.state, 'release', released)) {
      throw conflict('not-held', 'Not held', 'This text is not held for its hour or its moment, so there is nothing to let go.')
    }
    await openJobAgain({ kind: HAND_OVER, key: messageId }, now)
  })
}

/** Mine, or one of Plauder's own on a line that I answer. */
async function mustBeMine(asker: SignedIn, messageId: string) {
  const [found] = await tx(database => database
    .select({ message, line, words: activityContent.words })
    .from(message)
    .innerJoin(conversation, eq(conversation.id, message.conversationId))
    .innerJoin(line, eq(line.id, conversation.lineId))
    .leftJoin(activityContent, eq(activityContent.activityId, message.activityId))
    .where(eq(message.id, messageId))
    .for('update', { of: message }))
  const mine
    = found
      && (found.message.authorId === asker.id
        || (found.message.authorId === null && found.message.direction === 'out' && can(asker, 'line.answer', lineBelongs(found.line))))
  if (!mine) throw notFound('text')
  return found
}
