import { and, asc, eq, gt, isNotNull } from 'drizzle-orm'
import { markTime } from '~~/core/hours/say'
import { instantOf, type WallMoment } from '~~/core/hours/schedule'
import { zoneRules } from '~~/core/hours/zones'
import { mayLeaveNow } from '~~/core/message/gate'
import type { LaterForm } from '~~/shared/schemas/texting'
import { tx } from '../db/door'
import { whyNotThen, WISH_COLUMNS } from '../records/wish'
import { wishOf } from '~~/core/hours/wish'
import { conversation, message, numberState, record } from '../db/schema'
import { readHouse } from '../hours/house'
import { badInput, conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { moveJob } from '../jobs/change'
import { HAND_OVER } from '../jobs/kinds'
import { clockRules, placesOf, zonesOf } from '../records/phones'
import { announceMessage } from './announce'
import { takeBackMs } from './take-back-time'

const YEAR = 366 * 86_400_000

/**
 * The instant at which a text leaves that is meant for a moment by the clock of a place.
 *
 * @throws Problem 422 at the field, for a moment that has passed, that is too far off, or that never comes there
 */
export function leavesAtOf({ wallTime, zone }: LaterForm, now: Date): Date {
  const rules = zoneRules(zone)
  if (!rules) throw badInput({ 'later.zone': `“${zone}” is not a time zone.` })
  const found = instantOf(wallTime, rules)
  if (!found.ok)
    throw badInput({
      'later.wallTime':
        found.reason === 'gap'
          ? `That time never comes there: clocks are put forward. Choose ${markTime(found.next.slice(11))} or later.`
          : 'Choose a day and a time.',
    })
  if (found.instant <= now.getTime()) throw badInput({ 'later.wallTime': 'That moment has passed. Choose a later one, or send it now.' })
  if (found.instant > now.getTime() + YEAR) throw badInput({ 'later.wallTime': 'That is more than a year away. Choose an earlier day.' })
  return new Date(found.instant)
}

/**
 * Puts a text that is to leave later to another moment, or lets it leave at once.
 *
 * @throws Problem 409 if it has left, or if that moment is in the person's night
 */
export async function reschedule(
  asker: SignedIn,
  messageId: string,
  { later, nightAllowed }: { later: LaterForm | null, nightAllowed: boolean },
  now: Date,
): Promise<{ leavesAt: number }> {
  return tx(async (database) => {
    const [found] = await database
      .select({
        message,
        remote: conversation.remote,
        lastHeardAt: numberState.lastHeardAt,
        zone: record.zone,
        country: record.country,
        region: record.region,
        ...WISH_COLUMNS,
      })
      .from(message)
      .innerJoin(conversation, eq(conversation.id, message.conversationId))
      .leftJoin(numberState, eq(numberState.e164, conversation.remote))
      .leftJoin(record, eq(record.id, message.recordId))
      .where(eq(message.id, messageId))
      .for('update', { of: message })
    if (!found || found.message.authorId !== asker.id) throw notFound('text')
    if (found.message.state !== 'waiting' || !found.message.wallTime)
      throw conflict('has-left', 'It has left', 'This text waits no more, so its time cannot be changed.')
    const leavesAt = later ? leavesAtOf(later, now) : new Date(now.getTime() + (await takeBackMs()))
    const zones = zonesOf(found, found.remote)
    const allowed = nightAllowed || (later === null && found.message.nightAllowed)
    const verdict = mayLeaveNow({
      now: (later ? leavesAt : now).getTime(),
      zones,
      house: (await readHouse(now))(placesOf(found, found.remote)),
      wish: wishOf(found),
      lastHeardAt: found.lastHeardAt?.getTime() ?? null,
      nightAllowed: allowed,
    })
    if (!verdict.leaves)
      throw conflict(
        'night',
        'Their night',
        `${whyNotThen(verdict.reason, wishOf(found))} Choose another time, or say that it may leave then.`,
        { reason: verdict.reason, zones: clockRules(zones, leavesAt), notBefore: verdict.notBefore },
      )
    await database
      .update(message)
      .set({ wallTime: later?.wallTime ?? null, wallZone: later?.zone ?? null, leavesAt, nightAllowed: allowed })
      .where(eq(message.id, messageId))
    await moveJob(HAND_OVER, messageId, leavesAt, later !== null)
    await announceMessage(messageId)
    return { leavesAt: leavesAt.getTime() }
  })
}

/** So many are looked at in one transaction: whoever texts meanwhile waits for no more than that. */
const PIECE = 500

/**
 * Works every scheduled moment out again, piece by piece: the rules of a zone may have changed since, and nine o'clock
 * there stays nine o'clock there.
 *
 * @returns how many leave at another instant than was thought
 */
export async function workOutSchedule(piece = PIECE): Promise<number> {
  let moved = 0
  let after: string | null = null
  do {
    const worked: { moved: number, last: string | null } = await workOutPiece(after, piece)
    moved += worked.moved
    after = worked.last
  } while (after)
  return moved
}

async function workOutPiece(after: string | null, piece: number): Promise<{ moved: number, last: string | null }> {
  return tx(async (database) => {
    const waiting = await database
      .select({ id: message.id, leavesAt: message.leavesAt, wallTime: message.wallTime, zone: message.wallZone })
      .from(message)
      .where(and(eq(message.state, 'waiting'), isNotNull(message.wallTime), after ? gt(message.id, after) : undefined))
      .orderBy(asc(message.id))
      .limit(piece)
      .for('update')
    let moved = 0
    for (const { id, leavesAt, ...moment } of waiting) {
      const instant = instantNow(moment as WallMoment)
      if (instant === null || instant === leavesAt.getTime()) continue
      await database.update(message).set({ leavesAt: new Date(instant) }).where(eq(message.id, id))
      await moveJob(HAND_OVER, id, new Date(instant), true)
      moved++
    }
    return { moved, last: waiting.length < piece ? null : waiting.at(-1)!.id }
  })
}

/** A zone that is known no more, or an hour that was done away with, leaves what was worked out before. */
function instantNow({ wallTime, zone }: WallMoment): number | null {
  const rules = zoneRules(zone)
  const found = rules && instantOf(wallTime, rules)
  return found?.ok ? found.instant : null
}
