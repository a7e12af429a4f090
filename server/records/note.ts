import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { activity } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { appendEntry } from '../timeline/append'
import { mustHold } from './one'

/** Writes a note onto a record's timeline. Sending the same again writes nothing twice. */
export async function addNote(asker: SignedIn, recordId: string, { id, words }: { id: string, words: string }, now: Date): Promise<void> {
  await tx(async (database) => {
    await mustHold(asker, 'record.edit', recordId)
    const [earlier] = await database.select({ id: activity.id }).from(activity).where(eq(activity.id, id))
    if (!earlier) await appendEntry({ id, at: now, kind: 'note', colleagueId: asker.id, words }, [recordId])
  })
}
