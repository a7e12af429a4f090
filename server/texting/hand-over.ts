import { and, eq, inArray, sql } from 'drizzle-orm'
import { mayLeave, type Verdict } from '~~/core/message/gate'
import { afterEvent, statesBefore, type MessageState, type OurEvent } from '~~/core/message/states'
import { crashPoint } from '../jobs/crash-points'
import type { ClaimedJob, JobOutcome } from '../jobs/outbox'
import { carrierNamed } from '../carriers/registry'
import type { CarrierText, HandOverAnswer } from '../carriers/port'
import { lockNumber } from '../consent/number'
import { tx } from '../db/door'
import { activityContent, conversation, firm, line, message, record } from '../db/schema'
import { zonesOf } from '../records/phones'
import { announceMessage } from './announce'
import { touchContact } from './contact'
import { applyKeptReports } from './events'

/** After an hour of trying a text counts as failed: its moment has passed. */
const GIVE_UP_AFTER = 3_600_000
const LONGEST_PAUSE = 60_000

type Facts = Awaited<ReturnType<typeof factsOf>>

/**
 * Hands one text to its carrier, in three steps: ask the rules and commit `handing over`; ask the
 * carrier, with the text's id as key; commit its answer. After a crash in between, the same key leads to
 * the same answer, so nothing is sent twice.
 */
export async function handOver(job: ClaimedJob, now: () => Date): Promise<JobOutcome> {
  const messageId = String(job.payload.messageId)
  crashPoint('claimed')
  const ready = await begin(messageId, now())
  if (!ready) return { done: true }
  crashPoint('handing-over')
  const answer = await carrierNamed(ready.carrier).hand(ready.text)
  crashPoint('answered')
  return job.settle(() => takeAnswer(messageId, ready, answer, job, now()))
}

interface Ready {
  carrier: string
  text: CarrierText
  /** The carrier has been asked before and its answer is missing: only the same key may be asked again. */
  uncertain: boolean
}

/** Asks the rules once more, under the number's lock, and commits that we are about to ask the carrier. */
async function begin(messageId: string, now: Date): Promise<Ready | null> {
  return tx(async () => {
    const facts = await factsOf(messageId)
    const number = await lockNumber(facts.other)
    const verdict = judge(facts, number, now)
    const uncertain = askedBefore(facts)
    if (!verdict.leaves) {
      // what may have left cannot be called back by a rule, and nobody should guess
      if (uncertain) await move(messageId, facts.state, 'lost', { code: 'answer-lost' })
      else await move(messageId, facts.state, 'hold', { code: verdict.reason })
      return null
    }
    if (!uncertain && !await move(messageId, facts.state, 'claim', { handedAt: now })) return null
    return {
      carrier: facts.carrier,
      text: { key: messageId, from: facts.from, to: facts.other, text: facts.words ?? '', confirmsOptOut: facts.confirmsOptOut },
      uncertain,
    }
  })
}

/** A report may have overtaken the answer: then the text has left, but what it cost is still to be asked. */
function askedBefore({ state, costMicros }: Facts): boolean {
  return state === 'handing-over' || (costMicros === null && (state === 'sent' || state === 'undelivered' || state === 'delivered'))
}

function judge(facts: Facts, number: { texts: string, lastHeardAt: Date | null }, now: Date): Verdict {
  if (facts.confirmsOptOut) return { leaves: true }
  return mayLeave({
    now: now.getTime(),
    textingOn: facts.textingOn,
    lineOpen: facts.lineActive,
    numberUsable: true,
    optedOut: number.texts === 'refused',
    zones: zonesOf({ zone: facts.zone, country: facts.country, region: facts.region }, facts.other),
    lastHeardAt: number.lastHeardAt?.getTime() ?? null,
    nightAllowed: facts.nightAllowed,
  })
}

async function factsOf(messageId: string) {
  const [facts] = await tx(database => database
    .select({
      state: message.state, costMicros: message.costMicros, nightAllowed: message.nightAllowed, confirmsOptOut: message.confirmsOptOut,
      other: conversation.other, from: line.e164, carrier: line.carrier, lineActive: line.active,
      words: activityContent.words, textingOn: sql<boolean>`coalesce((select ${firm.textingOn} from ${firm}), false)`,
      zone: record.zone, country: record.country, region: record.region,
    })
    .from(message)
    .innerJoin(conversation, eq(conversation.id, message.conversationId))
    .innerJoin(line, eq(line.id, conversation.lineId))
    .leftJoin(activityContent, eq(activityContent.activityId, message.activityId))
    .leftJoin(record, eq(record.id, message.recordId))
    .where(eq(message.id, messageId)))
  if (!facts) throw new Error(`There is no message ${messageId}.`)
  return facts
}

async function takeAnswer(messageId: string, ready: Ready, answer: HandOverAnswer, job: ClaimedJob, now: Date): Promise<JobOutcome> {
  return tx(async (database) => {
    const [{ state } = { state: 'handing-over' }] = await database.select({ state: message.state }).from(message).where(eq(message.id, messageId)).for('update')
    if (answer.kind === 'accepted') {
      await move(messageId, state, 'accepted', { carrierRef: answer.ref, parts: answer.parts, costMicros: answer.costMicros, currency: answer.currency })
      await touchContact(messageId, now)
      await applyKeptReports(ready.carrier, answer.ref)
      return { done: true }
    }
    if (answer.kind === 'refused') {
      await move(messageId, state, 'refused', { code: answer.code, settledAt: now })
      return { done: true }
    }
    const uncertain = ready.uncertain || !answer.certain
    if (now.getTime() - job.orderAt.getTime() > GIVE_UP_AFTER) {
      await move(messageId, state, uncertain ? 'lost' : 'refused', { code: uncertain ? 'answer-lost' : answer.code, settledAt: now })
      return { done: true }
    }
    if (!uncertain) await move(messageId, state, 'try-again', {})
    const pause = answer.afterMs ?? Math.min(LONGEST_PAUSE, 500 * 2 ** Math.min(job.attempt, 10))
    return { done: false, dueAt: new Date(now.getTime() + pause) }
  })
}

/** Moves a message by one of our events, if it still is where that event may begin. */
export async function move(messageId: string, state: string, event: OurEvent, values: Partial<typeof message.$inferInsert>): Promise<boolean> {
  const next = afterEvent(state as MessageState, event)
  if (!next) return false
  return tx(async (database) => {
    const [moved] = await database.update(message)
      .set({ ...values, state: next })
      .where(and(eq(message.id, messageId), inArray(message.state, next === state ? [next] : statesBefore(event))))
      .returning({ id: message.id })
    if (moved) await announceMessage(messageId)
    return moved !== undefined
  })
}
