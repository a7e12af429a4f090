import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { message } from '../db/schema'
import { notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { placesShown } from '../reading/places-shown'

/**
 * Gives a message a name of its own, by which colleagues find it again; without one it has that of its template.
 *
 * @throws Problem 404 for an entry that is no message, or on no record that the asker may change
 */
export async function nameMessage(asker: SignedIn, entryId: string, name: string | null, now: Date): Promise<void> {
  await tx(async (database) => {
    const places = await placesShown(asker, entryId, 'record.edit')
    if (places.length === 0) throw notFound('entry')
    const named = await database.update(message).set({ name }).where(eq(message.activityId, entryId)).returning({ id: message.id })
    if (named.length === 0) throw notFound('entry')
    await note('message-named', asker.id, now, { activityId: entryId })
    for (const { recordId, ...belongs } of places) announce({ kind: 'entry', recordId, activityId: entryId }, 'record.see', [belongs])
  })
}
