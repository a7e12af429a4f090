import { and, eq, isNotNull, isNull } from 'drizzle-orm'
import { tx } from '../db/door'
import { bulkPerson } from '../db/schema'
import { notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announceBulk, mustHoldBulk } from './one'

/**
 * Somebody has answered in another way, by mail or at the counter, so that they are not asked again; or has not after all. What came in
 * by text stays an answer.
 *
 * @throws Problem 404 for whoever has not got it
 */
export async function noteAnswered(asker: SignedIn, id: string, recordId: string, answered: boolean, now: Date): Promise<void> {
  await tx(async (database) => {
    const bulk = await mustHoldBulk(asker, id)
    const theirs = and(eq(bulkPerson.bulkId, id), eq(bulkPerson.recordId, recordId), eq(bulkPerson.standing, 'texted'))
    const [found] = await database.select({ id: bulkPerson.id }).from(bulkPerson).where(theirs)
    if (!found) throw notFound('person who got this bulk text')
    const changed = await database.update(bulkPerson)
      .set(answered ? { answeredAt: now, answerNotedBy: asker.id } : { answeredAt: null, answerNotedBy: null })
      .where(and(theirs, answered ? isNull(bulkPerson.answeredAt) : isNotNull(bulkPerson.answerNotedBy)))
      .returning({ id: bulkPerson.id })
    if (changed.length === 0) return
    await note('bulk-answer-noted', asker.id, now, { bulkId: id, recordId, answered })
    announceBulk(bulk)
  })
}
