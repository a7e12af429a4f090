import { and, eq, isNull, ne, sql } from 'drizzle-orm'
import type { MyRound } from '~~/shared/rounds'
import { ask, tx } from '../../db/door'
import { at } from '../../db/instants'
import { record, roundColleague, roundPerson } from '../../db/schema'
import { readHouse } from '../../hours/house'
import { conflict } from '../../http/problem'
import { seesRecord } from '../../reading/visible'
import type { SignedIn } from '../../identity/sign-in'
import { JOIN_REACH, PERSON_COLUMNS, whyPassed, type PersonRow } from './facts'
import { myRound } from './mine'
import { announceRound, mustHoldRound, type StoredRound } from './one'
import { turnsOf } from './order'
import { happen, letGoOfAll, passAll, standingOf } from './standing'

/** As many are looked at together: most rounds find somebody among them. */
const LOOKED_AT = 20

/**
 * Hands the next person of a round to a colleague, who joins it by that; whoever has somebody in hand keeps them.
 * Those whose turn it is and who may not be called now are passed over, with the reason.
 *
 * @throws Problem 409 `round-closed` while it is paused or stopped
 */
export async function nextInRound(asker: SignedIn, roundId: string, now: Date): Promise<MyRound> {
  return tx(async () => {
    const round = await mustHoldRound(asker, roundId)
    if (round.state !== 'open') throw conflict('round-closed', 'Not now', `The round ${round.name} is ${round.state}. Go on with it first.`)
    await join(asker, roundId, now)
    const before = await myRound(asker, now)
    if (before?.inHand) return before
    // even where nobody is left, some may have been passed over
    await handOut(asker, round, now)
    announceRound(round)
    return (await myRound(asker, now))!
  })
}

/** On one round at a time: whoever is in hand elsewhere waits there again. */
async function join(asker: SignedIn, roundId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const elsewhere = await database.update(roundColleague).set({ leftAt: now })
      .where(and(eq(roundColleague.colleagueId, asker.id), isNull(roundColleague.leftAt), ne(roundColleague.roundId, roundId))).returning()
    if (elsewhere.length > 0) await letGoOfAll(asker, now)
    await database.insert(roundColleague).values({ roundId, colleagueId: asker.id, joinedAt: now })
      .onConflictDoUpdate({ target: [roundColleague.roundId, roundColleague.colleagueId], set: { leftAt: null } })
  })
}

/** Goes on tomorrow: what is in hand waits again, and the round with it. */
export async function leaveRound(asker: SignedIn, roundId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const round = await mustHoldRound(asker, roundId)
    await letGoOfAll(asker, now)
    await database
      .update(roundColleague)
      .set({ leftAt: now })
      .where(and(eq(roundColleague.roundId, roundId), eq(roundColleague.colleagueId, asker.id)))
    announceRound(round)
  })
}

type DueRow = PersonRow & { standing: Record<string, unknown> }

async function handOut(asker: SignedIn, round: StoredRound, now: Date): Promise<void> {
  for (;;) {
    const due = await dueIn(asker, round, now)
    const house = await readHouse(now)
    const judged = due.map(person => ({ person, why: whyPassed(person, house, round.notWithinHours, now) }))
    const found = judged.findIndex(({ why }) => why === null)
    const passed = (found < 0 ? judged : judged.slice(0, found)).map(({ person, why }) => ({
      recordId: person.recordId,
      before: standingBefore(person),
      event: { kind: 'pass' as const, ...why!, at: now.getTime() },
    }))
    await passAll(round.id, passed, now)
    if (found >= 0) await happen(round.id, judged[found]!.person.recordId, { kind: 'hold', by: asker.id, at: now.getTime() })
    if (found >= 0 || due.length < LOOKED_AT) return
  }
}

const standingBefore = ({ standing }: DueRow) =>
  standingOf({ ...standing, heldUntil: date(standing.heldUntil), notBefore: date(standing.notBefore) } as Parameters<typeof standingOf>[0])
const date = (instant: unknown) => typeof instant === 'string' ? new Date(instant) : null

/** Those whose turn is next and may have come, in the order of the round. */
async function dueIn(asker: SignedIn, round: StoredRound, now: Date): Promise<DueRow[]> {
  const order = await turnsOf(round, now)
  const { rows } = await ask<DueRow>(sql`
    with due as (
      select p.* from ${roundPerson} p join ${record} r on r.id = p.record_id
      where p.round_id = ${round.id}::uuid and p.state in ('waiting', 'held')
        and ${seesRecord(asker, 'r')}
        and case p.state when 'held' then p.held_until <= ${at(now)} else p.not_before is null or p.not_before <= ${at(now)} end
      order by ${order} limit ${sql.raw(String(LOOKED_AT))})
    select ${PERSON_COLUMNS}, jsonb_build_object('state', p.state, 'colleagueId', p.colleague_id, 'heldUntil', p.held_until, 'reason',
      p.reason, 'notBefore', p.not_before, 'turn', p.turn) as standing
    from due p join ${record} r on r.id = p.record_id ${JOIN_REACH}
    order by ${order}`)
  return rows
}
