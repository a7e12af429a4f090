import { and, eq, isNull } from 'drizzle-orm'
import { read } from '../db/door'
import { call, line } from '../db/schema'
import { addJob } from '../jobs/add'
import { TAKE_MESSAGE } from '../jobs/kinds'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { isOpenAt } from '../texting/line-open'
import type { Line } from '../texting/lines'
import { whoIsOnCall } from './on-call'
import { theExchange } from './port'
import { addRinging, ringNext, type RingsFirst } from './ring-order'
import { withWhomItRings } from './rings-with'

/** An exchange that cannot be reached is asked again so soon. */
const AGAIN_MS = 2_000

/**
 * What happens to a call that nobody takes: it rings with all of them, and then a message is taken; at once where the line is
 * closed, or where all of them talk and the line has words for that.
 */
export async function ringOn(id: string, first: RingsFirst, line: Line, at: Date): Promise<void> {
  await addRinging(id, first, at)
  if (line.greeting === null) return
  const rings = await withWhomItRings(id, line, at)
  const allTalk = rings.length > 0 && (await whoIsOnCall(rings)).size === rings.length
  if (line.busyGreeting !== null && allTalk)
    return void await addJob({ kind: TAKE_MESSAGE, key: id, payload: { callId: id, busy: true }, dueAt: at })
  await addJob({
    kind: TAKE_MESSAGE,
    key: id,
    payload: { callId: id },
    dueAt: isOpenAt(line, at) ? new Date(at.getTime() + line.ringSeconds * 1_000) : at,
  })
}

/** Whoever it rang with alone has not taken it: it rings with the next. Who has declined it meanwhile has passed it on already. */
export const ringAll: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  const ringing = await stillRings(claim)
  if (ringing?.ringsFirst !== claim.payload.alone) return 'done'
  const [on] = await read(database => database.select().from(line).where(eq(line.id, ringing!.lineId)))
  await ringNext(on!, ringing!, now())
  return 'done'
}))

/** Whoever answers at the same moment is quicker or is not: the exchange lets one of them have it. */
export const takeMessages: Handler = async (claims, now) => claims.map(claim => async () => {
  const ringing = await stillRings(claim)
  const greeting = ringing && await greetingOf(ringing.lineId, claim.payload.busy === true)
  const answer = ringing?.exchangeRef && greeting != null ? await theExchange().takeMessage(ringing.exchangeRef, greeting) : 'done'
  return settle(claim, now(), async () => answer === 'unreachable' ? { dueAt: new Date(now().getTime() + AGAIN_MS) } : 'done')
})

async function greetingOf(lineId: string, busy: boolean): Promise<string | null> {
  const [on] = await read(database => database.select().from(line).where(eq(line.id, lineId)))
  return (busy ? on?.busyGreeting : null) ?? on?.greeting ?? null
}

/** The call of a job, while nobody has taken it. */
export async function stillRings({ payload }: Claim) {
  const [found] = await read(database =>
    database
      .select()
      .from(call)
      .where(and(eq(call.id, String(payload.callId)), isNull(call.answeredAt), isNull(call.endedAt), isNull(call.colleagueId))),
  )
  return found ?? null
}
