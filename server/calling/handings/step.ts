import { and, eq, isNull } from 'drizzle-orm'
import { afterStep, type HandingStep } from '~~/core/call/handing'
import { tx } from '../../db/door'
import { callHanding } from '../../db/schema'

export type StoredHanding = typeof callHanding.$inferSelect

/** The handing of a call that is under way, held fast until the transaction around has ended. */
export async function openHanding(callId: string): Promise<StoredHanding | null> {
  const [found] = await tx(database => database.select().from(callHanding).where(and(eq(callHanding.callId, callId), isNull(callHanding.endedAt))).for('update'))
  return found ?? null
}

/** Lets a step happen to it; null where it leads nowhere. */
export async function stepHanding({ id, state, way }: StoredHanding, step: HandingStep, now: Date): Promise<StoredHanding | null> {
  const after = afterStep(state, way, step)
  if (!after) return null
  const ended = after !== 'together'
  const [stepped] = await tx(database => database.update(callHanding)
    .set({ state: after, ...(step === 'take' && { takenAt: now }), ...(ended && { endedAt: now }) }).where(eq(callHanding.id, id)).returning())
  return stepped!
}
