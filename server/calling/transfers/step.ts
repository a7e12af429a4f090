import { and, eq, isNull } from 'drizzle-orm'
import { afterStep, type TransferStep } from '~~/core/call/transfer'
import { tx } from '../../db/door'
import { callTransfer } from '../../db/schema'

export type StoredTransfer = typeof callTransfer.$inferSelect

/** The transfer of a call that is under way, held fast until the transaction around has ended. */
export async function openTransfer(callId: string): Promise<StoredTransfer | null> {
  const [found] = await tx(database =>
    database
      .select()
      .from(callTransfer)
      .where(and(eq(callTransfer.callId, callId), isNull(callTransfer.endedAt)))
      .for('update'),
  )
  return found ?? null
}

/** Lets a step happen to it; null where it leads nowhere. */
export async function stepTransfer({ id, state, way }: StoredTransfer, step: TransferStep, now: Date): Promise<StoredTransfer | null> {
  const after = afterStep(state, way, step)
  if (!after) return null
  const ended = after !== 'together'
  const [stepped] = await tx(database =>
    database
      .update(callTransfer)
      .set({ state: after, ...(step === 'take' && { takenAt: now }), ...(ended && { endedAt: now }) })
      .where(eq(callTransfer.id, id))
      .returning(),
  )
  return stepped!
}
