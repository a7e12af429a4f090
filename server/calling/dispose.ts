import { and, eq, isNull, max } from 'drizzle-orm'
import { callState, isOff } from '~~/core/call/facts'
import type { Disposed } from '~~/shared/calling'
import type { DisposeForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { call, callEffect, disposition } from '../db/schema'
import { factsFor, happen, previewOf } from '../effects/happen'
import { conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { MODULE_OF_STRANGERS, occasionOf, personOf } from './preview'
import { forSuchCalls } from './purpose'
import { announceCall, factsOf, mustBeMyCall, type StoredCall } from './stored'

/**
 * Says how a call went, and does all that this sets off, in one transaction. An effect that fails stops no other; texts
 * wait in the outbox for as long as they can be taken back.
 *
 * Pressing twice, or at two machines, does it once.
 *
 * @throws Problem 409 `disposed` if it has been said already; 422 at what an effect still has to ask
 */
export async function dispose(asker: SignedIn, callId: string, form: DisposeForm, now: Date): Promise<Disposed> {
  const disposed = await inOne(asker, callId, form, now)
  crashPoint('disposed')
  return disposed
}

function inOne(asker: SignedIn, callId: string, form: DisposeForm, now: Date): Promise<Disposed> {
  return tx(async (database) => {
    const mine = await mustBeMyCall(asker, callId)
    if (mine.dispositionId === form.dispositionId) return whatWasDone(mine)
    if (mine.dispositionId)
      throw conflict('disposed', 'Already said', 'It is said already how this call went. Take that back first, then choose anew.')
    if (!isOff(callState(factsOf(mine)))) throw conflict('still-on', 'The call is still on', 'End the call first, then say how it went.')
    const about = await personOf(asker, mine)
    const [chosen] = await database
      .select()
      .from(disposition)
      .where(and(eq(disposition.id, form.dispositionId), isNull(disposition.retiredAt), forSuchCalls(mine)))
    if (!chosen || chosen.module !== (about?.module ?? MODULE_OF_STRANGERS)) throw notFound('disposition')
    await database.update(call).set({ dispositionId: chosen.id, disposedAt: now }).where(eq(call.id, callId))
    if (about) await perform(asker, { mine, about, chosen }, form, now)
    await announceCall(mine)
    return whatWasDone({ ...mine, dispositionId: chosen.id })
  })
}

interface Chosen { mine: StoredCall, about: NonNullable<Awaited<ReturnType<typeof personOf>>>, chosen: typeof disposition.$inferSelect }

/** All that a disposition sets off for a person, each effect with what came of it. */
async function perform(asker: SignedIn, { mine, about, chosen }: Chosen, form: DisposeForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const occasion = occasionOf(asker, mine, about)
    const facts = await factsFor(chosen.effects, occasion, now)
    const previews = chosen.effects.map((effect, position) => previewOf(effect, position, facts, occasion, now))
    const attempt = await nextAttempt(mine.id)
    await happen(previews, form.choices, facts, occasion, now, async ({ position, effect }, came) => {
      await database.insert(callEffect).values({ callId: mine.id, attempt, position, effect, ...came })
      crashPoint('effect-done')
    })
  })
}

/** What came of how I said that my call went. */
export async function readDisposed(asker: SignedIn, callId: string): Promise<Disposed> {
  const mine = await mustBeMyCall(asker, callId)
  if (!mine.dispositionId) throw notFound('disposition')
  return whatWasDone(mine)
}

async function nextAttempt(callId: string): Promise<number> {
  const [last] = await read(database =>
    database
      .select({ attempt: max(callEffect.attempt) })
      .from(callEffect)
      .where(eq(callEffect.callId, callId)),
  )
  return (last?.attempt ?? -1) + 1
}

export async function whatWasDone({ id, dispositionId }: StoredCall): Promise<Disposed> {
  return tx(async (database) => {
    const [named] = await database.select({ name: disposition.name }).from(disposition).where(eq(disposition.id, dispositionId!))
    const attempt = await nextAttempt(id) - 1
    const effects = await database
      .select({ position: callEffect.position, words: callEffect.words, state: callEffect.state, reason: callEffect.reason })
      .from(callEffect)
      .where(and(eq(callEffect.callId, id), eq(callEffect.attempt, attempt)))
      .orderBy(callEffect.position)
    return { name: named!.name, effects }
  })
}
