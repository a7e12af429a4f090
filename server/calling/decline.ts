import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { callDeclined, line } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { announceCall, type StoredCall } from './stored'
import { ringNext } from './ring-order'
import { withWhomItRings } from './rings-with'

/** What the exchange is to do with a call that nobody takes: end it, or take a message after these words. */
export type Untaken = 'decline' | { greeting: string }

/**
 * A colleague will not take a call that rings: it rings on with the others who answer its line. Where nobody is left, the
 * line's mailbox has it, or nobody.
 *
 * @returns null where it rings on
 */
export async function declined(asker: SignedIn, ringing: StoredCall, now: Date): Promise<Untaken | null> {
  return tx(async (database) => {
    await database.insert(callDeclined).values({ callId: ringing.id, colleagueId: asker.id }).onConflictDoNothing()
    const [on] = await database.select().from(line).where(eq(line.id, ringing.lineId))
    const others = (await withWhomItRings(ringing.id, on!, now)).length > 0
    if (others && ringing.ringsFirst === asker.id) await ringNext(on!, ringing, now)
    else await announceCall(ringing)
    return others ? null : on!.greeting === null ? 'decline' : { greeting: on!.greeting }
  })
}
