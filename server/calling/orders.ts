import { and, eq, isNotNull, isNull, ne } from 'drizzle-orm'
import { callState } from '~~/core/call/facts'
import { can } from '~~/shared/permissions'
import { read, tx } from '../db/door'
import { call, line } from '../db/schema'
import { conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { lineBelongs } from '../texting/lines'
import { declined } from './decline'
import { refOfCall } from './find-call'
import { theExchange, type Order } from './port'
import { addToCall, announceCall, factsOf, mustBeMyCall, type StoredCall } from './stored'

/** An exchange that cannot be reached lets it ring on. */
async function takeMessage(found: StoredCall, greeting: string, now: Date): Promise<void> {
  const ref = await refOfCall(found, now)
  if (ref) await theExchange().takeMessage(ref, greeting)
}

/** What of a call that comes in anybody may do who answers its line; the rest is for whoever is on it. */
const FOR_ALL: readonly Order[] = ['answer', 'decline']

/**
 * Tells the exchange to do something with a call. What then happens comes back as an event.
 *
 * @throws Problem 404 for a call that is not mine; 409 where it cannot be done, or a colleague was quicker
 */
export async function orderCall(asker: SignedIn, callId: string, asked: Order, now: Date): Promise<void> {
  const found = await mustOrder(asker, callId, asked)
  if (callState(factsOf(found)) === 'ended') return
  const order = asked === 'decline' ? await declined(asker, found, now) : asked
  if (!order) return
  if (typeof order === 'object') return void await takeMessage(found, order.greeting, now)
  const ref = await refOfCall(found, now)
  // one is talked to at a time, and whoever waits hears nothing of the other
  const held = order === 'answer' || order === 'resume' ? await holdOthers(asker, found) : []
  const answer = ref ? await theExchange().order(ref, order) : 'gone'
  // there is nobody else to talk to after all
  if (answer !== 'done') for (const other of held) await theExchange().order(other, 'resume')
  if (answer === 'unreachable') throw conflict('exchange-away', 'No connection', 'The exchange cannot be reached. Try again in a moment.')
  // our mailbox was quicker; whoever presses twice has the call already, and keeps it
  if (answer === 'not-now' && order === 'answer' && found.colleagueId === null) await giveBack(asker, found)
  if (answer === 'done' && order === 'answer') await recordIfWanted(found)
  if (answer === 'not-now' && order !== 'hang-up') throw conflict('not-now', 'Not now', 'That cannot be done at this moment of the call.')
  // a call that its exchange knows no more is over, whatever we had heard
  if (answer === 'gone') await addToCall(callId, { kind: 'ended', at: Date.now(), why: 'network', side: 'network' })
}

/**
 * Sends tones of the keys along my call.
 *
 * @throws Problem 404, 409 while nobody has answered
 */
export async function sendTones(asker: SignedIn, callId: string, tones: string): Promise<void> {
  const { exchangeRef } = await tx(() => mustBeMyCall(asker, callId))
  const answer = exchangeRef ? await theExchange().tones(exchangeRef, tones) : 'not-now'
  if (answer === 'unreachable') throw conflict('exchange-away', 'No connection', 'The exchange cannot be reached. Try again in a moment.')
  if (answer !== 'done') throw conflict('not-now', 'Not now', 'Tones can be sent while you talk.')
}

async function mustOrder(asker: SignedIn, callId: string, order: Order): Promise<StoredCall> {
  return tx(async (database) => {
    const [found] = await database
      .select({ call, line })
      .from(call)
      .innerJoin(line, eq(line.id, call.lineId))
      .where(eq(call.id, callId))
      .for('update', { of: call })
    if (!found || !can(asker, 'line.answer', lineBelongs(found.line))) throw notFound('call')
    if (!FOR_ALL.includes(order)) {
      if (found.call.colleagueId !== asker.id) throw notFound('call')
      return found.call
    }
    if (found.call.direction !== 'in' || (found.call.colleagueId && found.call.colleagueId !== asker.id))
      throw conflict('taken', 'Taken', 'A colleague has answered this call already.')
    if (order === 'answer') {
      await database.update(call).set({ colleagueId: asker.id }).where(eq(call.id, callId))
      await announceCall(found.call)
    }
    return found.call
  })
}

/** My other calls, while I talk to somebody else; gives those that were put on hold, by the exchange’s name. */
async function holdOthers(asker: SignedIn, { id }: StoredCall): Promise<string[]> {
  const others = await read(database =>
    database
      .select()
      .from(call)
      .where(and(eq(call.colleagueId, asker.id), ne(call.id, id), isNotNull(call.answeredAt), isNull(call.endedAt))),
  )
  const refs = others.flatMap(other => callState(factsOf(other)) === 'talking' && other.exchangeRef ? [other.exchangeRef] : [])
  for (const ref of refs) await theExchange().order(ref, 'hold')
  return refs
}

async function giveBack(asker: SignedIn, taken: StoredCall): Promise<void> {
  await tx(async (database) => {
    await database.update(call).set({ colleagueId: null }).where(and(eq(call.id, taken.id), eq(call.colleagueId, asker.id)))
    await announceCall(taken)
  })
}

/** A line whose talks are recorded begins with the answer; whoever talks can stop it. */
async function recordIfWanted({ lineId, exchangeRef }: StoredCall): Promise<void> {
  const [on] = await read(database => database.select({ records: line.records }).from(line).where(eq(line.id, lineId)))
  if (on?.records && exchangeRef) await theExchange().order(exchangeRef, 'record')
}
