import { and, eq, isNull } from 'drizzle-orm'
import { read, tx } from '../db/door'
import { call } from '../db/schema'
import { conflict } from '../http/problem'
import { addJob } from '../jobs/add'
import { FIND_CALL } from '../jobs/kinds'
import { settle, type Handler } from '../jobs/outbox'
import { theExchange } from './port'
import { addToCall, type StoredCall } from './stored'

/** Longer than we wait for the exchange's answer to a dialling. */
const LOOK_AFTER_MS = 8_000
const AGAIN_MS = 3_000

/** In the transaction that begins a call: whatever happens to us while it is dialled, somebody looks what became of it. */
export async function lookForCallLater(callId: string, now: Date): Promise<void> {
  await addJob({ kind: FIND_CALL, key: callId, payload: { callId }, dueAt: new Date(now.getTime() + LOOK_AFTER_MS) })
}

export const findCalls: Handler = async (claims, now) => claims.map(claim => async () => {
  const found = await findCall(String(claim.payload.callId), now())
  return settle(claim, now(), async () => found === 'unreachable' ? { dueAt: new Date(now().getTime() + AGAIN_MS) } : 'done')
})

/**
 * Finds a call of which the exchange's answer was lost by our own name for it, and keeps the exchange's name. One that
 * was never dialled is over, and never will be dialled.
 *
 * @returns the exchange's name for it; null for a call that is over or that is not ours
 */
export async function findCall(callId: string, now: Date): Promise<{ ref: string } | null | 'unreachable'> {
  const [lost] = await read(database => database.select().from(call).where(and(eq(call.id, callId), isNull(call.endedAt))))
  if (!lost) return null
  if (lost.exchangeRef) return { ref: lost.exchangeRef }
  const became = await theExchange().whatBecameOf(callId)
  if (became.kind === 'unreachable') return 'unreachable'
  if (became.kind === 'never') {
    await addToCall(callId, { kind: 'ended', at: now.getTime(), why: 'network', side: 'network' })
    return null
  }
  await keepRef(lost, became.ref)
  return { ref: became.ref }
}

/**
 * The exchange's name for a call that is to be told something.
 *
 * @returns null for a call that turns out to be over
 * @throws Problem 409 while nobody can say whether the exchange has it
 */
export async function refOfCall({ id, exchangeRef }: Pick<StoredCall, 'id' | 'exchangeRef'>, now: Date): Promise<string | null> {
  if (exchangeRef) return exchangeRef
  const found = await findCall(id, now)
  if (found === 'unreachable')
    throw conflict(
      'not-known-yet',
      'Not known yet',
      'The exchange does not answer, so nobody knows yet whether it rings there. It is asked until it does; try again in a moment.',
    )
  return found?.ref ?? null
}

/** The exchange's own name for a call, from whatever tells it first. */
export async function keepRef({ id }: Pick<StoredCall, 'id'>, ref: string): Promise<void> {
  await tx(database => database.update(call).set({ exchangeRef: ref }).where(and(eq(call.id, id), isNull(call.exchangeRef))))
}
