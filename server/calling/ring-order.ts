import { eq } from 'drizzle-orm'
import { read, tx } from '../db/door'
import { call, record } from '../db/schema'
import { addJob } from '../jobs/add'
import { RING_ALL, RING_ALONG } from '../jobs/kinds'
import type { Line } from '../texting/lines'
import { whoAnswers } from '../texting/who-answers'
import { isOnCall } from './on-call'
import { announceCall, type StoredCall } from './stored'
import { withWhomItRings } from './rings-with'

/** For so long a call rings with one colleague alone. */
const ALONE_MS = 10_000

/** With whom a call rings alone, and until when; both null: with everybody who answers its line. */
export interface RingsFirst { ringsFirst: string | null, ringsFirstUntil: Date | null }

/**
 * With whom a call rings next: alone with the colleague to whom the caller belongs, where the line says so; then with those of
 * the line's order, one after the other, as far as they are there and do not talk; then with all.
 */
export async function ringsNext(
  line: Line,
  { id, recordId }: Pick<StoredCall, 'id' | 'recordId'>,
  after: string | null,
  at: Date,
): Promise<RingsFirst> {
  const owner = line.ownerFirst && recordId ? await ownerOf(recordId) : null
  const order = [...new Set([...owner ? [owner] : [], ...line.ringOrder])]
  const there = line.ringOrder.length > 0 ? await withWhomItRings(id, line, at) : []
  for (const one of order.slice(order.indexOf(after ?? '') + 1)) {
    const rings = one === owner ? (await whoAnswers([one], line)).length > 0 : there.includes(one) && !await isOnCall(one)
    if (rings) return { ringsFirst: one, ringsFirstUntil: new Date(at.getTime() + ALONE_MS) }
  }
  return { ringsFirst: null, ringsFirstUntil: null }
}

async function ownerOf(recordId: string): Promise<string | null> {
  const [found] = await read(database => database.select({ ownerId: record.ownerId }).from(record).where(eq(record.id, recordId)))
  return found?.ownerId ?? null
}

/** A call rings with whoever is next, in the browser and on their own telephones. */
export async function ringNext(line: Line, ringing: StoredCall, now: Date): Promise<void> {
  const next = await ringsNext(line, ringing, ringing.ringsFirst, now)
  await tx(async (database) => {
    await database.update(call).set(next).where(eq(call.id, ringing.id))
    await announceCall(ringing)
    await addRinging(ringing.id, next, now)
  })
}

/** The jobs that ring own telephones along, and go on to whoever is next. */
export async function addRinging(callId: string, { ringsFirst, ringsFirstUntil }: RingsFirst, now: Date): Promise<void> {
  const key = `${callId} ${ringsFirst ?? 'all'}`
  await addJob({ kind: RING_ALONG, key, payload: { callId }, dueAt: now })
  if (ringsFirstUntil) await addJob({ kind: RING_ALL, key, payload: { callId, alone: ringsFirst }, dueAt: ringsFirstUntil })
}
