import { eq } from 'drizzle-orm'
import { callState } from '~~/core/call/facts'
import { tx } from '../db/door'
import { call } from '../db/schema'
import { conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { openTransfer } from './transfers/step'
import { theExchange } from './port'
import { addToCall, factsOf, mustBeMyCall } from './stored'
import { mustLeave } from './spoken'

/**
 * Leaves a spoken message on the mailbox that answers my call. I am free at once: the exchange says it, and hangs up.
 *
 * @throws Problem 404, 409 while nobody has answered
 */
export async function leaveSpoken(asker: SignedIn, callId: string, spokenId: string): Promise<void> {
  const { ref, sound } = await tx(async (database) => {
    const mine = await mustBeMyCall(asker, callId)
    const spoken = await mustLeave(asker, spokenId)
    const state = callState(factsOf(mine))
    if (mine.direction === 'in' || (state !== 'talking' && state !== 'held') || (await openTransfer(callId)))
      throw conflict('not-now', 'Not now', 'A message can be left on a call of yours that was answered.')
    await database.update(call).set({ spoken: { name: spoken.name, words: spoken.words } }).where(eq(call.id, callId))
    return { ref: mine.exchangeRef, sound: spoken.sound }
  })
  const answer = ref ? await theExchange().leave(ref, sound) : 'not-now'
  if (answer === 'done') {
    // the exchange tells it too, perhaps later: whichever is first counts
    await addToCall(callId, { kind: 'leaving', at: Date.now() })
    return
  }
  await tx(database => database.update(call).set({ spoken: null }).where(eq(call.id, callId)))
  if (answer === 'unreachable') throw conflict('exchange-away', 'No connection', 'The exchange cannot be reached. Try again in a moment.')
  if (answer === 'not-now') throw conflict('not-now', 'Not now', 'That cannot be done at this moment of the call.')
  await addToCall(callId, { kind: 'ended', at: Date.now(), why: 'network', side: 'network' })
}
