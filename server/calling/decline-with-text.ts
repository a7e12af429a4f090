import { eq } from 'drizzle-orm'
import { read } from '../db/door'
import { call } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { openConversation } from '../texting/conversations'
import { orderCall } from './orders'

/**
 * Declines a call that rings, and opens the conversation of its line with its number, in which a text says why.
 *
 * @throws Problem 404 and 409 as for any order to a call
 */
export async function declineWithText(asker: SignedIn, callId: string, now: Date): Promise<{ conversationId: string }> {
  await orderCall(asker, callId, 'decline', now)
  const [ringing] = await read(database =>
    database.select({ lineId: call.lineId, remote: call.remote }).from(call).where(eq(call.id, callId)),
  )
  if (!ringing) throw notFound('call')
  return { conversationId: await openConversation(ringing.lineId, ringing.remote, now) }
}
