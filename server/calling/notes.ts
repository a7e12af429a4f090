import { and, eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { activityContent, call, callTransfer } from '../db/schema'
import { setContent } from '../activity/append'
import { notFound } from '../http/problem'
import { firstNames } from '../identity/colleagues'
import type { SignedIn } from '../identity/sign-in'
import { announceCall, mustBeMyCall, type StoredCall } from './stored'

/** What one of those who were on a call has noted; `content.data.notes` of the call's entry. */
interface Noted { by: string, words: string }

/**
 * Keeps what I note in a call; it stands on the timeline as the words of the call. Where it was transferred, whoever had
 * it before keeps their own notes, and each part says whose it is.
 *
 * @throws Problem 404 for who is not and was not on it
 */
export async function keepNotes(asker: SignedIn, callId: string, words: string): Promise<void> {
  await tx(async (database) => {
    const found = await mustHaveBeenOn(asker, callId)
    const [kept] = await database.select().from(activityContent).where(eq(activityContent.activityId, found.activityId))
    const before = notedIn(kept, found.colleagueId)
    const noted = before.some(({ by }) => by === asker.id)
      ? before.map(one => one.by === asker.id ? { ...one, words } : one)
      : [...before, { by: asker.id, words }]
    await setContent(found.activityId, await together(noted), { ...kept?.data, notes: noted })
    await announceCall(found)
  })
}

/** Notes of before each was apart are of whoever had the call. */
function notedIn(content: { words: string | null, data: Record<string, unknown> | null } | undefined, colleagueId: string | null): Noted[] {
  if (content?.data?.notes) return content.data.notes as Noted[]
  return content?.words && colleagueId ? [{ by: colleagueId, words: content.words }] : []
}

async function together(noted: Noted[]): Promise<string> {
  const said = noted.filter(({ words }) => words.trim() !== '')
  if (said.length < 2) return said[0]?.words ?? ''
  const names = await firstNames(said.map(({ by }) => by))
  return said.map(({ by, words }) => `${names.get(by) ?? 'A colleague'}: ${words}`).join('\n\n')
}

/** Mine, or one that I have handed to a colleague. */
async function mustHaveBeenOn(asker: SignedIn, callId: string): Promise<StoredCall> {
  return tx(async (database) => {
    const [found] = await database.select().from(call).where(eq(call.id, callId)).for('update')
    const [handed] = await database
      .select({ id: callTransfer.id })
      .from(callTransfer)
      .where(and(eq(callTransfer.callId, callId), eq(callTransfer.fromId, asker.id)))
      .limit(1)
    if (!found || (found.colleagueId !== asker.id && !handed)) throw notFound('call')
    return found
  })
}

/** How good my call was, from 1 to 5; null takes it away again. */
export async function rateCall(asker: SignedIn, callId: string, rating: number | null): Promise<void> {
  await tx(async (database) => {
    const mine = await mustBeMyCall(asker, callId)
    await database.update(call).set({ rating }).where(eq(call.id, callId))
    await announceCall(mine)
  })
}

/** Puts my call away without a disposition; it stays on the timeline. */
export async function putAway(asker: SignedIn, callId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustBeMyCall(asker, callId)
    await database.update(call).set({ putAwayAt: now }).where(eq(call.id, callId))
    await announceCall(found)
  })
}
