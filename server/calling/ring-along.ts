import { and, asc, eq, notExists, sql } from 'drizzle-orm'
import { read } from '../db/door'
import { callDeclined, colleague, line, ownPhone } from '../db/schema'
import { settle, type Handler } from '../jobs/outbox'
import { whoAnswers } from '../texting/who-answers'
import { whoIsOnCall } from './on-call'
import { theExchange, type OwnTelephone } from './port'
import { stillRings } from './ring'
import type { StoredCall } from './stored'

/** An exchange that cannot be reached is asked again so soon. */
const AGAIN_MS = 2_000

/** A call that comes in rings on the own telephones of those with whom it rings, where they call with these. */
export const ringAlong: Handler = async (claims, now) => claims.map(claim => async () => {
  const ringing = await stillRings(claim)
  const { phones, record } = ringing?.exchangeRef ? await phonesFor(ringing, now()) : { phones: [], record: false }
  const answer = phones.length > 0 ? await theExchange().ringAlong(ringing!.exchangeRef!, phones, record) : 'done'
  return settle(claim, now(), async () => answer === 'unreachable' ? { dueAt: new Date(now().getTime() + AGAIN_MS) } : 'done')
})

/** Of those who answer its line, have not declined it and are on no other call; of its first one alone, while it rings first with them. */
async function phonesFor(
  { id, lineId, ringsFirst, ringsFirstUntil }: StoredCall,
  now: Date,
): Promise<{ phones: OwnTelephone[], record: boolean }> {
  const alone = ringsFirst && ringsFirstUntil && ringsFirstUntil > now ? eq(colleague.id, ringsFirst) : undefined
  const [on, phones] = await read(async database => [
    (await database.select().from(line).where(eq(line.id, lineId)))[0]!,
    await database.select({ number: ownPhone.e164, desk: colleague.id }).from(ownPhone)
      .innerJoin(colleague, eq(colleague.id, ownPhone.colleagueId))
      .where(and(
        eq(colleague.callsWith, 'own-phones'),
        alone,
        notExists(database.select({ one: sql`1` }).from(callDeclined)
          .where(and(eq(callDeclined.callId, id), eq(callDeclined.colleagueId, colleague.id)))),
      ))
      .orderBy(asc(colleague.id), asc(ownPhone.position)),
  ] as const)
  const desks = [...new Set(phones.map(({ desk }) => desk))]
  const busy = await whoIsOnCall(desks)
  const answer = await whoAnswers(desks.filter(desk => !busy.has(desk)), on)
  return { phones: phones.filter(({ desk }) => answer.includes(desk)), record: on.records }
}
