import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { isAwayLong } from '~~/core/lines/stand-in'
import { afterEvent, mayFollow, statesBefore, type MessageState, type OurEvent } from '~~/core/message/states'
import { contacted } from '../activity/contact'
import { jobsDone } from '../jobs/in-sql'
import { crashPoint } from '../jobs/crash-points'
import { Overtaken, settle, type Claim, type Ending, type Outcome, type Work } from '../jobs/outbox'
import { carrierNamed, carrierRegistered } from '../carriers/registry'
import type { CarrierText, HandOverAnswer } from '../carriers/port'
import { tx } from '../db/door'
import { gather } from '../db/gather'
import { at, textArray } from '../db/instants'
import { activityOnRecord, carrierEvent, conversation, line, message, textMessage } from '../db/schema'
import { statement } from '../db/statement'
import { spending } from '../money/in-sql'
import { freeHeld } from '../money/settle'
import { announceMessage, announceShown, SHOWN, SHOWN_JOINS, type ShownRow } from './announce'
import { applyKeptReports } from './events'
import { askGate, type AtGate } from './gate'
import { picturesOf } from './pictures'
import { leaveOverStandIn } from './stand-in'

/** After an hour in which a carrier did not answer a person decides, however long the text had waited for its turn before. */
const GIVE_UP_AFTER = 3_600_000
const LONGEST_PAUSE = 60_000
/** After so long it is asked again whether a paused bulk text goes on. */
const PAUSED_FOR = 5_000

/** A text that the rules let go, and of which it is committed that its carrier is about to be asked. */
interface Ready {
  carrier: string
  text: CarrierText
  /** The carrier has been asked before and its answer is missing: only the same key may be asked again. */
  uncertain: boolean
}

/**
 * Hands texts to their carriers, each in three steps: ask the rules and commit `handing over`; ask the
 * carrier, with the text's id as key; commit its answer. After a crash in between, the same key leads to
 * the same answer, so nothing is sent twice.
 */
export async function handOver(claims: Claim[], now: () => Date): Promise<(Work | null)[]> {
  const { ready, paused } = await begin(claims.map(claim => String(claim.payload.messageId)), now())
  return claims.map((claim) => {
    const messageId = String(claim.payload.messageId)
    const one = ready.get(messageId)
    if (paused.has(messageId)) return () => settle(claim, now(), async () => ({ dueAt: new Date(now().getTime() + PAUSED_FOR) }))
    return one ? () => ask(claim, one, now) : null
  })
}

async function ask(claim: Claim, ready: Ready, now: () => Date): Promise<Date | null> {
  crashPoint('handing-over')
  const answer = await carrierNamed(ready.carrier).hand(ready.text)
  crashPoint('answered')
  const dueAt = answer.kind === 'accepted'
    ? await takeAccepted(claim, ready, answer, now())
    : await settle(claim, now(), () => takeRefusal(claim, ready, answer, now()))
  crashPoint('settled')
  return dueAt
}

/** Asks the gate for each text, and commits that we are about to ask the carrier for those that may leave. */
async function begin(messageIds: string[], now: Date): Promise<{ ready: Map<string, Ready>, paused: Set<string> }> {
  return tx(async (database) => {
    const asked = await askGate(messageIds, now)
    const pictures = await picturesOf(asked.filter(({ text }) => text.pictures > 0).map(({ text }) => text.id))
    const ready = new Map<string, Ready>()
    const paused = new Set<string>()
    const fresh: string[] = []
    for (const { text, verdict } of asked) {
      const uncertain = askedBefore(text)
      const askedCarrier = (uncertain && text.askedCarrier) || text.carrier
      if (!verdict.leaves) {
        // what may have left cannot be called back by a rule, and nobody should guess
        if (uncertain) await move(text.id, text.state, 'lost', { code: 'answer-lost' })
        else if (verdict.reason === 'paused') paused.add(text.id)
        else await move(text.id, text.state, 'hold', { code: verdict.reason })
      }
      else if (uncertain && carrierRegistered(askedCarrier)?.keyless) await move(text.id, text.state, 'lost', { code: 'answer-lost', settledAt: now })
      else if (uncertain || afterEvent(text.state as MessageState, 'claim')) {
        if (!uncertain) fresh.push(text.id)
        // of what may have left only the carrier that was asked can say anything, whichever the line has now
        ready.set(text.id, {
          carrier: askedCarrier,
          uncertain,
          text: {
            key: text.id,
            from: text.from,
            to: text.remote,
            text: text.words ?? '',
            shift: text.shift,
            pictures: pictures.get(text.id) ?? [],
            confirmsOptOut: text.confirmsOptOut,
          },
        })
      }
    }
    // taking back is the same kind of update: where it has won, the text is not ours to hand over any more
    const claimed
      = fresh.length === 0
        ? []
        : await database
            .update(message)
            .set({
              state: 'handing-over',
              carrier: CARRIER_OF_LINE,
              handedAt: now,
              tryingSince: sql`coalesce(${message.tryingSince}, ${at(now)})`,
            })
            .where(and(inArray(message.id, fresh), inArray(message.state, statesBefore('claim'))))
            .returning({ id: message.id })
    for (const id of fresh) if (!claimed.some(one => one.id === id)) ready.delete(id)
    return { ready, paused }
  })
}

const CARRIER_OF_LINE = sql<string>`(select l.carrier from ${conversation} v join ${line} l on l.id = v.line_id
  where v.id = ${message.conversationId})`

/** A report may have overtaken the answer: then the text has left, but what its carrier answers is still to be asked. */
function askedBefore({ state, acceptedAt }: AtGate): boolean {
  return state === 'handing-over' || (acceptedAt === null && (state === 'sent' || state === 'undelivered' || state === 'delivered'))
}

const ACCEPTED_AFTER = mayFollow('accepted')

type Accepted = Extract<HandOverAnswer, { kind: 'accepted' }>

async function takeAccepted(claim: Claim, { carrier, text }: Ready, answer: Accepted, now: Date): Promise<null> {
  const { overtaken, kept } = await storeAccepted({ claim, carrier, messageId: text.key, answer, now })
  if (overtaken) throw new Overtaken()
  if (kept) await applyKeptReports(carrier, answer.ref)
  return null
}

/**
 * The way that nearly every text goes; answers that come at once are taken together, in one statement:
 * the answers, the jobs, what they have cost, the last contacts, and who is to be told.
 */
const storeAccepted = gather<AcceptedItem, AcceptedRow>(50, async (items) => {
  const { rows } = await storeAnswers(asColumns(items))
  announceShown(rows)
  const byMessage = new Map(rows.map(row => [row.message_id, row]))
  return items.map(({ messageId }) => byMessage.get(messageId)!)
})

interface AcceptedItem { claim: Claim, carrier: string, messageId: string, answer: Accepted, now: Date }

type AcceptedRow = ShownRow & { message_id: string, overtaken: boolean, kept: boolean }

const asColumns = (items: AcceptedItem[]) => ({
  jobs: items.map(({ claim }) => claim.id),
  attempts: items.map(({ claim }) => claim.attempt),
  messages: items.map(({ messageId }) => messageId),
  carriers: items.map(({ carrier }) => carrier),
  refs: items.map(({ answer }) => answer.ref),
  parts: items.map(({ answer }) => answer.charge?.parts ?? null),
  costs: items.map(({ answer }) => answer.charge?.costMicros ?? null),
  currencies: items.map(({ answer }) => answer.charge?.currency ?? null),
  entries: items.map(() => uuid()),
  ats: items.map(({ now }) => now.toISOString()),
})

const storeAnswers = statement<ReturnType<typeof asColumns>, AcceptedRow>(value => sql`
  with input as (
    select * from unnest(
      ${value('jobs')}::uuid[], ${value('attempts')}::int[], ${value('messages')}::uuid[], ${value('carriers')}::text[],
        ${value('refs')}::text[],
      ${value('parts')}::int[], ${value('costs')}::bigint[], ${value('currencies')}::text[], ${value('entries')}::uuid[], ${value('ats')}::timestamptz[]
    ) i (job_id, attempt, message_id, carrier, ref, parts, cost_micros, currency, entry_id, at)
  ), mine as (
    ${jobsDone(sql`input`, sql`i.message_id`)}
  ), told as (
    update ${message} m set carrier_ref = i.ref, accepted_at = i.at, cost_micros = coalesce(i.cost_micros, m.cost_micros),
      currency = coalesce(i.currency, m.currency),
      state = case when m.state = any(${textArray(statesBefore('accepted'))}) then 'accepted' else m.state end
    from input i
    where m.id = i.message_id and m.id = any(array(select message_id from mine)) and m.state = any(${textArray(ACCEPTED_AFTER)})
    returning m.id, m.activity_id, m.conversation_id, m.author_id, i.at, i.entry_id, i.cost_micros, i.currency
  ), ${spending(sql`told`)}, parted as (
    update ${textMessage} x set parts = i.parts from input i
    where x.message_id = i.message_id and x.message_id = any(array(select id from told)) and x.parts <> i.parts
  ), touched as (
    ${contacted(sql`select s.record_id, max(told.at) as at from told join ${activityOnRecord} s on s.activity_id = told.activity_id
      and s.along_line_id is null group by s.record_id`)}
  )
  select i.message_id, i.message_id not in (select message_id from mine) as overtaken,
    exists (select 1 from ${carrierEvent} e where e.carrier = i.carrier and e.carrier_ref = i.ref and e.message_id is null) as kept,
      ${SHOWN}
  from input i left join told t on t.id = i.message_id ${SHOWN_JOINS}`)

async function takeRefusal(claim: Claim, ready: Ready, answer: Exclude<HandOverAnswer, { kind: 'accepted' }>, now: Date): Promise<Outcome> {
  return tx(async (database) => {
    const messageId = ready.text.key
    const [{ state, tryingSince } = { state: 'handing-over', tryingSince: null }] = await database
      .select({ state: message.state, tryingSince: message.tryingSince })
      .from(message)
      .where(eq(message.id, messageId))
      .for('update')
    if (answer.kind === 'refused') {
      await move(messageId, state, 'refused', { code: answer.code, settledAt: now })
      return 'done'
    }
    if (answer.kind === 'not-known') {
      await move(messageId, state, 'lost', { code: 'answer-lost', settledAt: now })
      return 'done'
    }
    const busy = answer.kind === 'no-room'
    const uncertain = ready.uncertain || !(busy || answer.certain)
    if (!busy && tryingSince && now.getTime() - tryingSince.getTime() > GIVE_UP_AFTER) {
      if (uncertain) await move(messageId, state, 'lost', { code: 'answer-lost', settledAt: now })
      else await move(messageId, state, 'hold', { code: 'carrier-away' })
      return 'done'
    }
    // a carrier that has no room is there: that is waiting for one's turn, not trying
    if (!uncertain) await move(messageId, state, 'try-again', busy ? { tryingSince: null } : {})
    const carrier = carrierRegistered(ready.carrier)?.state?.()
    const awaySince = carrier?.is === 'away' && carrier.since > 0 ? carrier.since : null
    const isAway = !busy && !uncertain && isAwayLong(tryingSince?.getTime() ?? null, awaySince, now.getTime())
    if (isAway && await leaveOverStandIn(messageId, now)) return { dueAt: now }
    const pause = answer.afterMs ?? Math.min(LONGEST_PAUSE, 500 * 2 ** Math.min(claim.attempt, 10))
    return { dueAt: new Date(now.getTime() + pause) }
  })
}

/** For a text that is so no carrier takes anything. */
const NEVER_COSTS: readonly MessageState[] = ['failed', 'taken-back']

/** Moves a message by one of our events, if it still is where that event may begin. */
export async function move(
  messageId: string,
  state: string,
  event: OurEvent,
  values: Partial<typeof message.$inferInsert>,
): Promise<boolean> {
  const next = afterEvent(state as MessageState, event)
  if (!next) return false
  return tx(async (database) => {
    const [moved] = await database
      .update(message)
      .set({ ...values, state: next })
      .where(and(eq(message.id, messageId), inArray(message.state, statesBefore(event))))
      .returning({ id: message.id })
    if (moved && NEVER_COSTS.includes(next)) await freeHeld([messageId])
    if (moved) await announceMessage(messageId)
    return moved !== undefined
  })
}

/** A job that broke too often: what surely has not left is held for its writer; of the rest nobody knows. */
export const handOverBroke: Ending = {
  gaveUp: async ({ payload }, now) => {
    const { messageId, state } = await stateOf(payload)
    if (state === 'waiting') await move(messageId, state, 'hold', { code: 'broken' })
    if (state === 'handing-over') await move(messageId, state, 'lost', { code: 'answer-lost', settledAt: now })
  },
  again: async ({ payload }, now) => {
    const { messageId, state } = await stateOf(payload)
    if (state === 'held')
      await move(messageId, state, 'release', { code: null, leavesAt: now, tryingSince: null, wallTime: null, wallZone: null })
  },
}

async function stateOf(payload: Claim['payload']): Promise<{ messageId: string, state: string }> {
  const messageId = String(payload.messageId)
  const [found] = await tx(database =>
    database.select({ state: message.state }).from(message).where(eq(message.id, messageId)).for('update'),
  )
  return { messageId, state: found?.state ?? 'gone' }
}
