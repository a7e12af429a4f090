import { eq, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { read, tx } from '../db/door'
import { at } from '../db/instants'
import { call, callDeclined, colleague, line, signIn } from '../db/schema'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { lineBelongs, type Line } from '../texting/lines'
import type { Order, OwnOrder } from './port'
import { announceCall, type StoredCall } from './stored'

/**
 * A colleague will not take a call that rings: it rings on with the others who answer its line. Where nobody is left, the
 * line's mailbox has it, or nobody.
 *
 * @returns what the exchange is to do; null where it rings on
 */
export async function declined(asker: SignedIn, ringing: StoredCall, now: Date): Promise<Order | OwnOrder | null> {
  return tx(async (database) => {
    await database.insert(callDeclined).values({ callId: ringing.id, colleagueId: asker.id }).onConflictDoNothing()
    const [on] = await database.select().from(line).where(eq(line.id, ringing.lineId))
    const others = await stillRingWith(ringing, on!, now)
    if (others && ringing.ringsFirst === asker.id)
      await database.update(call).set({ ringsFirstUntil: sql`least(${call.ringsFirstUntil}, ${now.toISOString()}::timestamptz)` }).where(eq(call.id, ringing.id))
    await announceCall(ringing)
    return others ? null : on!.greeting === null ? 'decline' : 'take-message'
  })
}

/** Whether anybody is left who answers the line, has not declined, and is signed in: with nobody else it rings. */
async function stillRingWith({ id }: StoredCall, on: Line, now: Date): Promise<boolean> {
  const left = await read(database =>
    database
      .select({ id: colleague.id })
      .from(colleague)
      .where(sql`not exists (select 1 from ${callDeclined} d where d.call_id = ${id}::uuid and d.colleague_id = ${colleague.id})
        and exists (select 1 from ${signIn} s where s.colleague_id = ${colleague.id} and s.ends_at > ${at(now)})`),
  )
  for (const one of left) {
    const atWork = await colleagueAtWork(one.id)
    if (atWork && can(atWork, 'line.answer', lineBelongs(on))) return true
  }
  return false
}
