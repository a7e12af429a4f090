import { eq } from 'drizzle-orm'
import { withEvent, type CallEvent, type CallFacts } from '~~/core/call/facts'
import { tx } from '../db/door'
import { activityOnRecord, call, line, record } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { lineBelongs } from '../texting/lines'
import { bringUp } from '../texting/conversations'
import { oweCall } from './owed'
import { openTransfer, stepTransfer } from './transfers/step'

export type StoredCall = typeof call.$inferSelect

export const factsOf = ({
  madeAt,
  ownRingingAt,
  ownAnsweredAt,
  ringingAt,
  answeredAt,
  answeredBy,
  leavingAt,
  leftAt,
  endedAt,
  endWhy,
  endSide,
  switches,
}: StoredCall): CallFacts => ({
  madeAt: madeAt.getTime(),
  ownRingingAt: ownRingingAt?.getTime() ?? null,
  ownAnsweredAt: ownAnsweredAt?.getTime() ?? null,
  ringingAt: ringingAt?.getTime() ?? null,
  answeredAt: answeredAt?.getTime() ?? null,
  answeredBy,
  leavingAt: leavingAt?.getTime() ?? null,
  leftAt: leftAt?.getTime() ?? null,
  endedAt: endedAt?.getTime() ?? null,
  end: endWhy && endSide ? { why: endWhy, side: endSide } : null,
  switches,
})

/** A call as `to_jsonb` gives it, with its instants as dates. */
export function storedOf(row: Record<string, unknown>): StoredCall {
  const camel = Object.entries(row).map(([key, value]) => [
    key.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase()),
    key.endsWith('_at') && typeof value === 'string' ? new Date(value) : value,
  ])
  return Object.fromEntries(camel) as StoredCall
}

const instant = (at: number | null) => at === null ? null : new Date(at)

/** Adds what happened to a call, and tells who may know. The order in which events come makes no difference. */
export async function addToCall(callId: string, event: CallEvent): Promise<StoredCall | null> {
  return tx(async (database) => {
    const [before] = await database.select().from(call).where(eq(call.id, callId)).for('update')
    if (!before) return null
    const facts = withEvent(factsOf(before), event)
    const [after] = await database
      .update(call)
      .set({
        ownRingingAt: instant(facts.ownRingingAt),
        ownAnsweredAt: instant(facts.ownAnsweredAt),
        ringingAt: instant(facts.ringingAt),
        answeredAt: instant(facts.answeredAt),
        answeredBy: facts.answeredBy,
        leavingAt: instant(facts.leavingAt),
        leftAt: instant(facts.leftAt),
        endedAt: instant(facts.endedAt),
        endWhy: facts.end?.why ?? null,
        endSide: facts.end?.side ?? null,
        switches: facts.switches,
      })
      .where(eq(call.id, callId))
      .returning()
    if (after!.endedAt) await endTransfer(callId, after!.endedAt)
    if (!before.endedAt) await oweCall(after!)
    if (!before.endedAt && after!.endedAt) await bringUp(after!.lineId, after!.remote, after!.endedAt)
    await announceCall(after!)
    return after!
  })
}

async function endTransfer(callId: string, endedAt: Date): Promise<void> {
  const open = await openTransfer(callId)
  if (open) await stepTransfer(open, 'call-ended', endedAt)
}

/** Tells those who answer its line, and whoever has a record open on whose timeline it stands. */
export async function announceCall({ id, lineId, activityId }: Pick<StoredCall, 'id' | 'lineId' | 'activityId'>): Promise<void> {
  await tx(async (database) => {
    const [on] = await database.select().from(line).where(eq(line.id, lineId))
    announce({ kind: 'call', callId: id }, 'line.answer', [lineBelongs(on!)])
    const shown = await database.select({ recordId: activityOnRecord.recordId, ownerId: record.ownerId, teamId: record.teamId })
      .from(activityOnRecord).innerJoin(record, eq(record.id, activityOnRecord.recordId)).where(eq(activityOnRecord.activityId, activityId))
    for (const { recordId, ...belongs } of shown) announce({ kind: 'entry', recordId, activityId }, 'record.see', [belongs])
  })
}

/** @throws Problem 404 for a call that is not this colleague's */
export async function mustBeMyCall(asker: SignedIn, callId: string): Promise<StoredCall> {
  const [found] = await tx(database => database.select().from(call).where(eq(call.id, callId)).for('update'))
  if (!found || found.colleagueId !== asker.id) throw notFound('call')
  return found
}
