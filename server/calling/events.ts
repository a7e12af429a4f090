import { and, eq, or } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { outcomeOf, type CallEvent, type CallOutcome } from '~~/core/call/facts'
import { read, tx } from '../db/door'
import { call, callEvent, line } from '../db/schema'
import { heardFrom, lockNumber } from '../consent/number'
import { colleagueAtWork } from '../identity/sign-in'
import { log } from '../log/log'
import { enterCall } from '../money/settle'
import { touchContact } from '../activity/contact'
import { appendEntry } from '../activity/append'
import { withWhom } from '../activity/with-whom'
import { keepRef } from './find-call'
import type { ExchangeEvent } from './port'
import { fetchLater } from './recordings'
import { answeredByTalk } from './owed'
import { ringOn } from './ring'
import { ringsNext } from './ring-order'
import { addToCall, announceCall, factsOf, type StoredCall } from './stored'

/**
 * Takes what an exchange tells, once each by its id, in whatever order it comes.
 *
 * @returns false for a call that we do not know: it may begin with an event that is still on its way, so that this one is to be told again
 */
export async function takeCallEvent(exchange: string, told: ExchangeEvent, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const found = told.kind === 'incoming' ? null : await callOf(exchange, told)
    if (told.kind !== 'incoming' && !found) return false
    const [first] = await database
      .insert(callEvent)
      .values({ exchange, id: told.id, receivedAt: now })
      .onConflictDoNothing()
      .returning({ id: callEvent.id })
    if (!first) return true
    if (found && !found.exchangeRef) await keepRef(found, told.ref)
    if (told.kind === 'incoming') await ringIn(exchange, told)
    else if (told.kind === 'taken') await taken(found!, told.desk)
    else if (told.kind === 'charged') await enterCall(found!, told.charge, told.at)
    else if (told.kind === 'recorded') await fetchLater(found!, told.of, now)
    else {
      const after = await addToCall(found!.id, told.event)
      if (after && told.event.kind === 'answered') await answered(after, told.event)
      if (after && told.event.kind === 'ended') await tried(after, told.event.at)
    }
    return true
  })
}

/** By our own name for it first: an event may overtake the answer that tells us theirs. */
async function callOf(exchange: string, { key, ref }: ExchangeEvent): Promise<StoredCall | null> {
  const mine = key && isId(key) ? eq(call.id, key) : undefined
  const [found] = await read(database =>
    database
      .select()
      .from(call)
      .where(or(mine, and(eq(call.exchange, exchange), eq(call.exchangeRef, ref)))),
  )
  return found ?? null
}

/** It counts as contact, with a mailbox too; whoever has spoken with us may be answered whatever the hour. */
async function answered(call: StoredCall, { by, at }: Extract<CallEvent, { kind: 'answered' }>): Promise<void> {
  const { remote, activityId } = call
  await touchContact(activityId, new Date(at))
  if (by === 'machine') return
  await lockNumber(remote)
  await heardFrom(remote, new Date(at))
  await answeredByTalk(call, at)
}

/** It rang there, or was engaged: nobody spoke, and contact was tried all the same. */
const TRIED: readonly CallOutcome[] = ['busy', 'declined', 'no-answer']

async function tried(ended: StoredCall, at: number): Promise<void> {
  if (ended.direction === 'out' && TRIED.includes(outcomeOf(factsOf(ended))!)) await touchContact(ended.activityId, new Date(at))
}

/** Somebody has picked their own telephone up: the exchange decides between them and whoever pressed a button meanwhile. */
async function taken(ringing: StoredCall, desk: string): Promise<void> {
  const asker = isId(desk) ? await colleagueAtWork(desk) : null
  if (!asker || ringing.direction !== 'in') return
  await tx(database => database.update(call).set({ colleagueId: asker.id }).where(eq(call.id, ringing.id)))
  await announceCall(ringing)
}

/** Somebody calls one of our lines: it rings with all who answer it. */
async function ringIn(exchange: string, told: Extract<ExchangeEvent, { kind: 'incoming' }>): Promise<void> {
  await tx(async (database) => {
    const [to] = await database.select().from(line).where(eq(line.e164, told.line))
    if (!to) return log.warn({ ref: told.ref }, 'a call came in for a line that is not ours')
    const [id, activityId] = [uuid(), uuid()]
    const holders = await withWhom(to.id, told.remote)
    await appendEntry(
      { id: activityId, at: told.at, kind: 'call-in', colleagueId: null, data: { callId: id }, privateLineId: to.private ? to.id : null },
      holders.with,
      { recordIds: holders.along, lineId: to.id },
    )
    const first = await ringsNext(to, { id, recordId: holders.with[0] ?? null }, null, told.at)
    await database
      .insert(call)
      .values({
        ...first,
        id,
        direction: 'in',
        lineId: to.id,
        remote: told.remote,
        recordId: holders.with[0] ?? null,
        colleagueId: null,
        activityId,
        exchange,
        exchangeRef: told.ref,
        madeAt: told.at,
        ringingAt: told.at,
      })
    await lockNumber(told.remote)
    await heardFrom(told.remote, told.at)
    await touchContact(activityId, told.at)
    await announceCall({ id, lineId: to.id, activityId })
    await ringOn(id, first, to, told.at)
  })
}

const isId = (key: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(key)
