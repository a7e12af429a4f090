import { and, desc, eq } from 'drizzle-orm'
import type { Disposed } from '~~/shared/calling'
import { tx } from '../db/door'
import { call, callEffect } from '../db/schema'
import { undo } from '../effects/happen'
import { conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { authorize } from '../records/one'
import { whatWasDone } from './dispose'
import { occasionOf } from './preview'
import { announceCall, mustBeMyCall } from './stored'

/**
 * Takes back how a call went: what was done is undone by entries of its own, what has not left yet does not leave,
 * and what cannot be undone says so. The call waits for its disposition again.
 *
 * @throws Problem 409 where nothing was said yet
 */
export async function takeDispositionBack(asker: SignedIn, callId: string, now: Date): Promise<Disposed> {
  return tx(async (database) => {
    const mine = await mustBeMyCall(asker, callId)
    if (!mine.dispositionId) throw conflict('not-disposed', 'Nothing to take back', 'It was not said yet how this call went.')
    // the last first, so that each finds what it left
    const all = await database
      .select()
      .from(callEffect)
      .where(eq(callEffect.callId, callId))
      .orderBy(desc(callEffect.attempt), desc(callEffect.position))
    const last = all.filter(({ attempt }) => attempt === all[0]?.attempt)
    // of a number on no record nothing was done to anybody
    const occasion = last.length > 0 ? occasionOf(asker, mine, await authorize(asker, 'record.see', mine.recordId!)) : null
    for (const { attempt, position, effect, ...one } of last) {
      const after = await undo(effect, one, occasion!, now)
      if (after)
        await database
          .update(callEffect)
          .set(after)
          .where(and(eq(callEffect.callId, callId), eq(callEffect.attempt, attempt), eq(callEffect.position, position)))
    }
    const after = await whatWasDone(mine)
    await database.update(call).set({ dispositionId: null, disposedAt: null, putAwayAt: null }).where(eq(call.id, callId))
    await announceCall(mine)
    return after
  })
}
