import { and, eq, isNull } from 'drizzle-orm'
import { isLineOpen } from '~~/core/hours/line-hours'
import { zoneRules } from '~~/core/hours/zones'
import { can } from '~~/shared/permissions'
import { read } from '../db/door'
import { call, colleague, line, record } from '../db/schema'
import { colleagueAtWork } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { RING_ALL, RING_ALONG, TAKE_MESSAGE } from '../jobs/kinds'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { zonesOf } from '../records/phones'
import { lineBelongs, type Line } from '../texting/lines'
import { whoIsOnCall } from './on-call'
import { theExchange } from './port'
import { withWhomItRings } from './who-answers'
import { announceCall } from './stored'

/** For so long a call rings with the caller's own colleague alone, where a line says so. */
const OWNER_FIRST_MS = 10_000

/** An exchange that cannot be reached is asked again so soon. */
const AGAIN_MS = 2_000

interface RingsFirst { ringsFirst: string | null, ringsFirstUntil: Date | null }

/** With whom a call rings first: the colleague to whom the caller belongs, if they answer that line. */
export async function ringsFirst(line: Line, recordId: string | null, at: Date): Promise<RingsFirst> {
  const nobody = { ringsFirst: null, ringsFirstUntil: null }
  if (!line.ownerFirst || !recordId) return nobody
  const [owner] = await read(database =>
    database
      .select({ id: colleague.id })
      .from(record)
      .innerJoin(colleague, eq(colleague.id, record.ownerId))
      .where(eq(record.id, recordId)),
  )
  const asker = owner && await colleagueAtWork(owner.id)
  return asker && can(asker, 'line.answer', lineBelongs(line))
    ? { ringsFirst: owner.id, ringsFirstUntil: new Date(at.getTime() + OWNER_FIRST_MS) }
    : nobody
}

/**
 * What happens to a call that nobody takes: it rings with all of them, and then a message is taken; at once where the line is
 * closed, or where all of them talk and the line has words for that.
 */
export async function ringOn({ id, ringsFirstUntil }: { id: string } & RingsFirst, line: Line, at: Date): Promise<void> {
  await addJob({ kind: RING_ALONG, key: id, payload: { callId: id }, dueAt: at })
  if (ringsFirstUntil) await addJob({ kind: RING_ALL, key: id, payload: { callId: id }, dueAt: ringsFirstUntil })
  if (line.greeting === null) return
  const rings = await withWhomItRings(id, line, at)
  const allTalk = rings.length > 0 && (await whoIsOnCall(rings)).size === rings.length
  if (line.busyGreeting !== null && allTalk)
    return void await addJob({ kind: TAKE_MESSAGE, key: id, payload: { callId: id, busy: true }, dueAt: at })
  const zone = zoneRules(zonesOf({ zone: null, country: line.country, region: null }, line.e164)[0] ?? 'Etc/UTC')!
  const open = isLineOpen(line.hours, zone, at.getTime())
  await addJob({
    kind: TAKE_MESSAGE,
    key: id,
    payload: { callId: id },
    dueAt: open ? new Date(at.getTime() + line.ringSeconds * 1_000) : at,
  })
}

export const ringAll: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  const ringing = await stillRings(claim)
  if (ringing) {
    await announceCall(ringing)
    // the telephones of all the others
    await addJob({ kind: RING_ALONG, key: `${ringing.id} all`, payload: { callId: ringing.id }, dueAt: now() })
  }
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
