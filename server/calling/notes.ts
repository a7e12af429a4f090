import { eq } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { tx } from '../db/door'
import { call, line } from '../db/schema'
import { setWords } from '../activity/append'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { lineBelongs } from '../texting/lines'
import { announceCall, mustBeMyCall } from './stored'

/** Keeps what I note in a call; it stands on the timeline as the words of the call. */
export async function keepNotes(asker: SignedIn, callId: string, notes: string): Promise<void> {
  await tx(async () => {
    const mine = await mustBeMyCall(asker, callId)
    await setWords(mine.activityId, notes)
    await announceCall(mine)
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

/** Puts a call away without a disposition; it stays on the timeline. */
export async function putAway(asker: SignedIn, callId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustBeOnMyShelf(asker, callId)
    await database.update(call).set({ putAwayAt: now }).where(eq(call.id, callId))
    await announceCall(found)
  })
}

/** Mine, or one that nobody took on a line that I answer. */
async function mustBeOnMyShelf(asker: SignedIn, callId: string) {
  const [found] = await tx(database =>
    database
      .select({ call, line })
      .from(call)
      .innerJoin(line, eq(line.id, call.lineId))
      .where(eq(call.id, callId))
      .for('update', { of: call }),
  )
  const untaken = found && found.call.colleagueId === null && can(asker, 'line.answer', lineBelongs(found.line))
  if (!found || (found.call.colleagueId !== asker.id && !untaken)) throw notFound('call')
  return found.call
}
