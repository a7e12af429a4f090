import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import { isSettled, movedBy, RANK, SILENCE_AFTER, type CarrierReport } from '~~/core/message/states'
import type { CarrierEvent } from '../carriers/port'
import { tx } from '../db/door'
import { gather } from '../db/gather'
import { carrierEvent, conversation, line, message, textMessage } from '../db/schema'
import { statement } from '../db/statement'
import { crashPoint } from '../jobs/crash-points'
import { charge as bookCharge, enterRent } from '../money/settle'
import { announceMessage, announceShown, SHOWN, SHOWN_JOINS, type ShownRow } from './announce'
import { heedNumber } from './line-told'
import { receiveText } from './receive'

/**
 * Takes what a carrier tells, once each by its id, in whatever order it comes. A report about a text
 * that we do not know yet is kept and applied when we do.
 *
 * @param now when it reached us
 * @returns false for what a text of ours cost that we do not know yet, so that this is to be told again
 */
export async function takeEvent(carrier: string, event: Exclude<CarrierEvent, { kind: 'hello' | 'papers' | 'porting' }>, now: Date): Promise<boolean> {
  if (event.kind === 'charged') return takeCharge(carrier, event, now)
  if (event.kind === 'received') await takeText(carrier, event, now)
  else if (event.kind === 'number') await takeWord(carrier, event, now)
  else await takeReport(carrier, event, now)
  crashPoint('event-stored')
  return true
}

/** The newest word of a carrier about what a text costs is the one that counts. */
async function takeCharge(carrier: string, { ref, key, charge }: Extract<CarrierEvent, { kind: 'charged' }>, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const { parts, ...cost } = charge
    const [charged] = await database
      .update(message)
      .set(cost)
      .where(
        and(
          eq(message.carrier, carrier),
          key && isId(key) ? eq(message.id, key) : eq(message.carrierRef, ref),
          eq(message.direction, 'out'),
        ),
      )
      .returning({ id: message.id })
    if (!charged) return false
    if (parts !== undefined) await database.update(textMessage).set({ parts }).where(eq(textMessage.messageId, charged.id))
    await bookCharge(charged.id, { micros: cost.costMicros, currency: cost.currency }, now)
    await announceMessage(charged.id)
    return true
  })
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

/** What was said of a number counts once, and so does what it cost. */
async function takeWord(carrier: string, event: Extract<CarrierEvent, { kind: 'number' }>, now: Date): Promise<void> {
  await tx(async (database) => {
    const [first] = await database.insert(carrierEvent)
      .values({ carrier, id: event.id, kind: event.kind, carrierRef: event.e164, at: event.at, receivedAt: now })
      .onConflictDoNothing()
      .returning({ id: carrierEvent.id })
    if (!first) return
    // a clock of theirs that is fast would make us deaf to what they say next
    const lineId = await heedNumber(carrier, event, event.at < now ? event.at : now)
    if (event.charge) await enterRent({ ...event.charge, lineId, words: lineId ? '' : event.e164 }, now)
  })
}

type Report = Extract<CarrierEvent, { kind: CarrierReport }>

const takeReport = (carrier: string, report: Report, now: Date) => storeReport({ carrier, report, now })

/**
 * Reports that come at once are taken together, in one statement: the events are stored, each message
 * moved by the one that says most, and who is to be told.
 */
const storeReport = gather<Taken, null>(50, async (items) => {
  const { rows } = await storeReports(asColumns(items))
  announceShown(rows)
  return items.map(() => null)
})

interface Taken { carrier: string, report: Report, now: Date }

const asColumns = (items: Taken[]) => ({
  carriers: items.map(({ carrier }) => carrier),
  ids: items.map(({ report }) => report.id),
  kinds: items.map(({ report }) => report.kind),
  refs: items.map(({ report }) => report.ref),
  codes: items.map(({ report }) => report.code),
  ats: items.map(({ report }) => report.at.toISOString()),
  keys: items.map(({ report: { key } }) => key && isId(key) ? key : null),
  settle: items.map(({ report }) => isSettled(report.kind)),
  received: items.map(({ now }) => now.toISOString()),
})

/** How much each state says, as the state machine ranks them: a report moves a message only upwards. */
const RANKS = JSON.stringify(RANK)

const storeReports = statement<ReturnType<typeof asColumns>, ShownRow>(value => sql`
  with input as (
    select * from unnest(
      ${value('carriers')}::text[], ${value('ids')}::text[], ${value('kinds')}::text[], ${value('refs')}::text[],
      ${value('codes')}::text[], ${value('ats')}::timestamptz[], ${value('keys')}::uuid[],
      ${value('settle')}::boolean[], ${value('received')}::timestamptz[]
    ) i (carrier, id, kind, ref, code, at, key, settles, received_at)
  ), ours as (
    select i.*, coalesce(
      (select m.id from ${message} m join ${conversation} v on v.id = m.conversation_id join ${line} l on l.id = v.line_id
        where m.id = i.key and coalesce(m.carrier, l.carrier) = i.carrier and m.direction = 'out'),
      (select m.id from ${message} m where m.carrier = i.carrier and m.carrier_ref = i.ref and m.direction = 'out' and i.key is null)
    ) as message_id from input i
  ), first as (
    insert into ${carrierEvent} (carrier, id, kind, carrier_ref, code, at, received_at, message_id)
    select carrier, id, kind, ref, code, at, received_at, message_id from ours
    on conflict do nothing returning carrier, id
  ), best as (
    select distinct on (message_id) ours.* from ours join first using (carrier, id)
    where message_id is not null order by message_id, (${RANKS}::jsonb ->> kind)::int desc
  ), told as (
    update ${message} m set state = best.kind, code = best.code, settled_at = case when best.settles then best.at end,
      carrier = best.carrier, carrier_ref = coalesce(m.carrier_ref, best.ref)
    from best where m.id = best.message_id and m.id = any(array(select message_id from best))
      and (${RANKS}::jsonb ->> m.state)::int < (${RANKS}::jsonb ->> best.kind)::int
    returning m.id, m.activity_id, m.conversation_id
  )
  select ${SHOWN} from told t ${SHOWN_JOINS}`)

/** Reports that came before we knew the carrier's own name for a text. */
export async function applyKeptReports(carrier: string, ref: string): Promise<void> {
  await tx(async (database) => {
    const [found] = await database
      .select({ id: message.id })
      .from(message)
      .where(and(eq(message.carrier, carrier), eq(message.carrierRef, ref)))
    if (!found) return
    const kept = await database
      .update(carrierEvent)
      .set({ messageId: found.id })
      .where(
        and(
          eq(carrierEvent.carrier, carrier),
          eq(carrierEvent.carrierRef, ref),
          isNull(carrierEvent.messageId),
          ne(carrierEvent.kind, 'received'),
        ),
      )
      .returning()
    for (const { at: when, kind, code } of kept) {
      await database.update(message)
        .set({ state: kind as CarrierReport, code, settledAt: isSettled(kind as CarrierReport) ? when : null })
        .where(and(eq(message.id, found.id), inArray(message.state, movedBy(kind as CarrierReport))))
    }
    await announceMessage(found.id)
  })
}

const isId = (key: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(key)

/** Texts of which nobody has told for 72 hours are said to be so. */
export async function callSilence(now: Date): Promise<void> {
  const silent = await tx(database =>
    database
      .update(message)
      .set({ state: 'unreported' })
      .where(
        and(
          sql`${message.state} in ('accepted', 'sent')`,
          sql`${message.handedAt} < ${new Date(now.getTime() - SILENCE_AFTER).toISOString()}::timestamptz`,
          isNull(message.settledAt),
        ),
      )
      .returning({ id: message.id }),
  )
  for (const { id } of silent) await tx(() => announceMessage(id))
}
