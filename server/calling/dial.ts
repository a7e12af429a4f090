import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { mayCall } from '~~/core/call/gate'
import { can } from '~~/shared/permissions'
import type { DialForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { whyNotThen } from '../records/wish'
import { call, line } from '../db/schema'
import { readHouse } from '../hours/house'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { clockRules, placesOf, zonesOf } from '../records/phones'
import { lineBelongs } from '../texting/lines'
import { appendEntry } from '../activity/append'
import { withWhom } from '../activity/with-whom'
import { lineToCall } from './call-line'
import { keepRef, lookForCallLater } from './find-call'
import { phonesThatRing } from './how-i-call'
import { isOnCall } from './on-call'
import { theExchange, type ToDial } from './port'
import { mustReach } from './reach'
import { calledInRound, roundOfCall } from './rounds/standing'
import { addToCall, announceCall } from './stored'

interface Dialled { id: string, activityId: string }

/**
 * Calls a number from a line: writes the call and its entry, then asks the exchange. Dialling the same again gives the
 * first call.
 *
 * @throws Problem 409 `no-calls`, `night` (with what time it is there), `on-a-call`, `called-in-round` or `not-in-hand`;
 * 422 at the number or the line
 */
export async function dial(asker: SignedIn, form: DialForm, now: Date): Promise<Dialled> {
  const { toDial, activityId } = await begin(asker, form, now)
  if (!toDial) return { id: form.id, activityId }
  crashPoint('dialling')
  const answer = await theExchange().dial(toDial)
  if (answer.kind === 'dialling') await keepRef(form, answer.ref)
  // where the answer was lost it may ring there: it is looked for until that is known
  else if (answer.kind !== 'not-known')
    await addToCall(form.id, {
      kind: 'ended',
      at: Date.now(),
      why: answer.kind === 'refused' && answer.code === 'recipient-unknown' ? 'no-such-number' : 'network',
      side: 'network',
    })
  return { id: form.id, activityId }
}

/** @returns nothing to dial for a call that was begun before */
async function begin(asker: SignedIn, form: DialForm, now: Date): Promise<{ toDial: ToDial | null, activityId: string }> {
  return tx(async (database) => {
    const [known] = await database.select().from(call).where(eq(call.id, form.id))
    if (known?.colleagueId === asker.id) return { toDial: null, activityId: known.activityId }
    const { e164, recordId, place, calls, lastHeardAt, wish } = await mustReach(asker, form)
    const own = await mustAnswer(asker, form.lineId ?? await lineToCall(asker, e164))
    const zones = zonesOf(place, e164)
    const verdict = mayCall({
      now: now.getTime(),
      refused: calls === 'refused',
      zones,
      house: (await readHouse(now))(placesOf(place, e164)),
      wish,
      lastHeardAt: lastHeardAt?.getTime() ?? null,
      nightAllowed: form.nightAllowed,
    })
    if (!verdict.may && verdict.reason === 'no-calls')
      throw conflict(
        'no-calls',
        'No calls',
        'This number is not to be called: somebody there has asked for it. Text, if texts are welcome.',
      )
    if (!verdict.may) {
      throw conflict('night', 'Their night', `${whyNotThen(verdict.reason, wish)} Call later, or say that you may call now.`, {
        reason: verdict.reason,
        zones: clockRules(zones, now),
        notBefore: verdict.notBefore,
      })
    }
    if (await isOnCall(asker.id)) throw conflict('on-a-call', 'You are on a call', 'You are on a call already. End it, then dial.')
    const round = recordId ? await roundOfCall(asker, recordId, e164) : null
    if (form.roundId && form.roundId !== round?.id)
      throw conflict(
        'not-in-hand',
        'Not any more',
        'You do not have this person in hand any more: somebody else does, or it is done. Take the next.',
      )
    const activityId = uuid()
    const holders = await withWhom(own.id, e164, recordId)
    await appendEntry(
      {
        id: activityId,
        at: now,
        kind: 'call-out',
        colleagueId: asker.id,
        data: { callId: form.id, ...(round && { roundId: round.id, round: round.name }) },
        privateLineId: own.private ? own.id : null,
      },
      holders.with,
      { recordIds: holders.along, lineId: own.id },
    )
    await database
      .insert(call)
      .values({
        id: form.id,
        direction: 'out',
        lineId: own.id,
        remote: e164,
        recordId,
        colleagueId: asker.id,
        activityId,
        exchange: theExchange().name,
        madeAt: now,
      })
    await lookForCallLater(form.id, now)
    if (round && recordId) await calledInRound(asker, round, { recordId, callId: form.id, number: e164 }, now)
    await announceCall({ id: form.id, lineId: own.id, activityId })
    return {
      toDial: { key: form.id, from: own.e164, to: e164, record: own.records, ringFirst: await phonesThatRing(asker.id), desk: asker.id },
      activityId,
    }
  })
}

async function mustAnswer(asker: SignedIn, lineId: string | null) {
  if (!lineId) throw badInput({ lineId: 'No line of yours is in use, so nobody can be called. Ask an admin.' })
  const [own] = await read(database => database.select().from(line).where(eq(line.id, lineId)))
  if (!own) throw notFound('line')
  if (!can(asker, 'line.answer', lineBelongs(own))) throw notAllowed(`call from ${own.name}`)
  if (!own.active) throw badInput({ lineId: `${own.name} is not in use. Choose another line.` })
  return own
}
