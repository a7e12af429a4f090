import { and, eq } from 'drizzle-orm'
import { mayFollow, type EffectState } from '~~/core/call/effects'
import type { Disposed } from '~~/shared/calling'
import { savepoint, tx } from '../db/door'
import { call, callEffect } from '../db/schema'
import { conflict, Problem } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { whatWasDone } from './dispose'
import { undo } from './perform'
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
    const all = await database.select().from(callEffect).where(eq(callEffect.callId, callId)).orderBy(callEffect.round, callEffect.position)
    const round = all.at(-1)?.round ?? 0
    // the last first, so that each finds what it left
    for (const one of all.filter(effect => effect.round === round && mayFollow(effect.state, 'taken-back')).reverse()) {
      const stays = await savepoint(() => undo(asker, mine, one.before, now)).catch(whyItStays)
      const state: EffectState = stays === null ? 'taken-back' : 'stays'
      await database.update(callEffect).set({ state, reason: stays }).where(and(eq(callEffect.callId, callId), eq(callEffect.round, round), eq(callEffect.position, one.position)))
    }
    const after = await whatWasDone(mine)
    await database.update(call).set({ dispositionId: null, disposedAt: null, putAwayAt: null }).where(eq(call.id, callId))
    await announceCall(mine)
    return after
  })
}

function whyItStays(error: unknown): string {
  if (error instanceof Problem) return error.details.detail
  throw error
}
