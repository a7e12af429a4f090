import { and, eq, isNull, sql } from 'drizzle-orm'
import { afterEvent, isSettled, SILENCE_AFTER, type CarrierReport, type MessageState } from '~~/core/message/states'
import type { CarrierEvent } from '../carriers/port'
import { tx } from '../db/door'
import { carrierEvent, message } from '../db/schema'
import { crashPoint } from '../jobs/crash-points'
import { announceMessage } from './announce'
import { receiveText } from './receive'

/**
 * Takes what a carrier tells, once each by its id, in whatever order it comes. A report about a text
 * that we do not know yet is kept and applied when we do.
 *
 * @param now when it reached us
 */
export async function takeEvent(carrier: string, event: CarrierEvent, now: Date): Promise<void> {
  await tx(async (database) => {
    const [first] = await database.insert(carrierEvent)
      .values({ carrier, id: event.id, kind: event.kind, carrierRef: event.ref, code: event.kind === 'received' ? null : event.code, at: event.at, receivedAt: now })
      .onConflictDoNothing()
      .returning({ id: carrierEvent.id })
    if (!first) return
    if (event.kind === 'received') await receiveText(carrier, event, now)
    else await applyReport(carrier, event)
    crashPoint('event-stored')
  })
}

type Report = Pick<Extract<CarrierEvent, { kind: CarrierReport }>, 'id' | 'at' | 'kind' | 'ref' | 'key' | 'code'>

async function applyReport(carrier: string, report: Report): Promise<void> {
  await tx(async (database) => {
    const ours = report.key && isId(report.key) ? eq(message.id, report.key) : eq(message.carrierRef, report.ref)
    const [found] = await database.select({ id: message.id, state: message.state, carrierRef: message.carrierRef }).from(message).where(and(ours, eq(message.direction, 'out'))).for('update')
    if (!found) return
    await database.update(carrierEvent).set({ messageId: found.id }).where(and(eq(carrierEvent.carrier, carrier), eq(carrierEvent.id, report.id)))
    const next = afterEvent(found.state as MessageState, report.kind)
    if (!next || next === found.state) return
    await database.update(message)
      .set({ state: next, code: report.code, settledAt: isSettled(next) ? report.at : null, carrierRef: found.carrierRef ?? report.ref })
      .where(eq(message.id, found.id))
    await announceMessage(found.id)
  })
}

/** Reports that came before we knew the carrier's own name for a text. */
export async function applyKeptReports(carrier: string, ref: string): Promise<void> {
  await tx(async (database) => {
    const kept = await database.select().from(carrierEvent).where(and(eq(carrierEvent.carrier, carrier), eq(carrierEvent.carrierRef, ref), isNull(carrierEvent.messageId)))
    for (const { id, at, kind, carrierRef, code } of kept) {
      if (kind !== 'received') await applyReport(carrier, { id, at, kind: kind as CarrierReport, ref: carrierRef, key: null, code })
    }
  })
}

const isId = (key: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(key)

/** Texts of which nobody has told for 72 hours are said to be so. */
export async function callSilence(now: Date): Promise<void> {
  const silent = await tx(database => database.update(message)
    .set({ state: 'unreported' })
    .where(and(sql`${message.state} in ('accepted', 'sent')`, sql`${message.handedAt} < ${new Date(now.getTime() - SILENCE_AFTER).toISOString()}::timestamptz`, isNull(message.settledAt)))
    .returning({ id: message.id }))
  for (const { id } of silent) await tx(() => announceMessage(id))
}
