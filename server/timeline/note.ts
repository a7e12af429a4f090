import { and, eq } from 'drizzle-orm'
import type { NoteForm } from '~~/shared/schemas/record'
import { read, tx } from '../db/door'
import { activity, activityOnRecord } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { appendEntry } from '../activity/append'
import { readEntries } from './read'
import { authorize } from '../records/one'

const QUOTED = 80

/**
 * Writes a note onto a record's timeline, perhaps on one of its entries, of which it keeps the first words. Sending
 * the same again writes nothing twice.
 */
export async function addNote(
  asker: SignedIn,
  recordId: string,
  { id, words, about = null }: Pick<NoteForm, 'id' | 'words'> & Partial<NoteForm>,
  now: Date,
): Promise<void> {
  await tx(async (database) => {
    await authorize(asker, 'record.edit', recordId)
    const [earlier] = await database.select({ id: activity.id }).from(activity).where(eq(activity.id, id))
    if (earlier) return
    const on = about ? await quoteOf(asker, recordId, about) : null
    await appendEntry({ id, at: now, kind: 'note', colleagueId: asker.id, words, content: on?.content, privateLineId: on?.privateLineId }, [
      recordId,
    ])
  })
}

/** What went over a private line is quoted only to those who answer it; what only came along with a number is not quoted. */
async function quoteOf(
  asker: SignedIn,
  recordId: string,
  about: string,
): Promise<{ content: { about: string, quote: string }, privateLineId: string | null }> {
  const [entry] = await readEntries(asker, recordId, [about])
  if (!entry) throw notFound('entry')
  const words = entry.words ?? ''
  const [place] = await read(database =>
    database
      .select({ privateLineId: activityOnRecord.privateLineId, alongLineId: activityOnRecord.alongLineId })
      .from(activityOnRecord)
      .where(and(eq(activityOnRecord.recordId, recordId), eq(activityOnRecord.activityId, about))),
  )
  const quoted = place!.alongLineId ? '' : words
  return {
    content: { about, quote: quoted.length > QUOTED ? `${quoted.slice(0, QUOTED).trimEnd()}…` : quoted },
    privateLineId: place!.privateLineId,
  }
}
