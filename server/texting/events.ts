import { and, eq, isNull, sql, type SQL } from 'drizzle-orm'
import { isSettled, movedBy, SILENCE_AFTER, type CarrierReport } from '~~/core/message/states'
import type { CarrierEvent } from '../carriers/port'
import { once, tx } from '../db/door'
import { at, textArray } from '../db/instants'
import { carrierEvent, message } from '../db/schema'
import { crashPoint } from '../jobs/crash-points'
import { announceMessage, announceShown, SHOWN, type ShownRow } from './announce'
import { receiveText } from './receive'

/**
 * Takes what a carrier tells, once each by its id, in whatever order it comes. A report about a text
 * that we do not know yet is kept and applied when we do.
 *
 * @param now when it reached us
 */
export async function takeEvent(carrier: string, event: CarrierEvent, now: Date): Promise<void> {
  if (event.kind === 'received') await takeText(carrier, event, now)
  else await takeReport(carrier, event, now)
  crashPoint('event-stored')
}

async function takeText(carrier: string, event: Extract<CarrierEvent, { kind: 'received' }>, now: Date): Promise<void> {
  await tx(async (database) => {
    const [first] = await database.insert(carrierEvent)
      .values({ carrier, id: event.id, kind: event.kind, carrierRef: event.ref, at: event.at, receivedAt: now })
      .onConflictDoNothing()
      .returning({ id: carrierEvent.id })
    if (first) await receiveText(carrier, event, now)
  })
}

type Report = Extract<CarrierEvent, { kind: CarrierReport }>

/** One statement: the event is stored, the message moved if the report says more than its state, and who is to be told. */
async function takeReport(carrier: string, report: Report, now: Date): Promise<void> {
  const { rows } = await once<ShownRow>(sql`
    with ours as (
      select id from ${message} where ${isOurs(report)} and direction = 'out'
    ), first as (
      insert into ${carrierEvent} (carrier, id, kind, carrier_ref, code, at, received_at, message_id)
      values (${carrier}, ${report.id}, ${report.kind}, ${report.ref}, ${report.code}, ${at(report.at)}, ${at(now)}, (select id from ours))
      on conflict do nothing returning id
    ), told as (
      ${moving(report, sql`(select id from ours)`)} and exists (select 1 from first)
      returning m.id, m.activity_id, m.conversation_id
    )
    select ${SHOWN}`)
  announceShown(rows)
}

const isOurs = ({ key, ref }: Report) => key && isId(key) ? sql`id = ${key}::uuid` : sql`carrier_ref = ${ref}`

/** The state machine's step as an update: from the states that this report moves, to its own. */
function moving({ kind, code, at: when, ref }: Report, messageId: SQL): SQL {
  return sql`update ${message} m set state = ${kind}, code = ${code}, settled_at = ${isSettled(kind) ? at(when) : null}, carrier_ref = coalesce(m.carrier_ref, ${ref})
    where m.id = ${messageId} and m.state = any(${textArray(movedBy(kind))})`
}

/** Reports that came before we knew the carrier's own name for a text. */
export async function applyKeptReports(carrier: string, ref: string): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select({ id: message.id }).from(message).where(eq(message.carrierRef, ref))
    if (!found) return
    const kept = await database.update(carrierEvent).set({ messageId: found.id })
      .where(and(eq(carrierEvent.carrier, carrier), eq(carrierEvent.carrierRef, ref), isNull(carrierEvent.messageId)))
      .returning()
    for (const { id, at, kind, code } of kept) {
      if (kind !== 'received') await database.execute(moving({ id, at, kind: kind as CarrierReport, ref, key: null, code }, sql`${found.id}::uuid`))
    }
    await announceMessage(found.id)
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
