import { and, eq, sql } from 'drizzle-orm'
import { withRoundEvent, type RoundEvent, type Standing } from '~~/core/call/round'
import type { Saying } from '~~/shared/schemas/round'
import { once, read, tx } from '../../db/door'
import { at } from '../../db/instants'
import { callRound, roundPerson } from '../../db/schema'
import { conflict, notFound } from '../../http/problem'
import type { SignedIn } from '../../identity/sign-in'
import { announceRound, mustHoldRound, type StoredRound } from './one'

type StoredPerson = typeof roundPerson.$inferSelect

export const standingOf = ({ state, colleagueId, heldUntil, reason, notBefore, turn }: StoredPerson): Standing => ({
  state,
  by: colleagueId,
  heldUntil: heldUntil?.getTime() ?? null,
  reason,
  notBefore: notBefore?.getTime() ?? null,
  turn,
})

const stored = ({ state, by, heldUntil, reason, notBefore, turn }: Standing) => ({
  state,
  colleagueId: by,
  heldUntil: heldUntil === null ? null : new Date(heldUntil),
  reason,
  notBefore: notBefore === null ? null : new Date(notBefore),
  turn,
})

/** Lets something happen to somebody in a round; false where it cannot. */
export async function happen(roundId: string, recordId: string, event: RoundEvent, more: Partial<StoredPerson> = {}): Promise<boolean> {
  return tx(async (database) => {
    const which = and(eq(roundPerson.roundId, roundId), eq(roundPerson.recordId, recordId))
    const [before] = await database.select().from(roundPerson).where(which).for('update')
    const after = before && withRoundEvent(standingOf(before), event)
    if (!after) return false
    await database.update(roundPerson).set({ ...stored(after), ...more, changedAt: new Date(event.at) }).where(which)
    return true
  })
}

/** Passes many over at once. Each was looked at, and is locked, in this transaction. */
export async function passAll(
  roundId: string,
  passed: { recordId: string, event: Extract<RoundEvent, { kind: 'pass' }>, before: Standing }[],
  now: Date,
): Promise<void> {
  const rows = passed.map(({ recordId, event, before }) => ({ id: recordId, ...(withRoundEvent(before, event) ?? before) }))
  if (rows.length === 0) return
  await once(sql`
    update ${roundPerson} p set state = x.state, colleague_id = null, held_until = null, reason = x.reason,
      not_before = to_timestamp(x."notBefore" / 1000.0), changed_at = ${at(now)}
    from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as x(id uuid, state text, reason text, "notBefore" float8)
    where p.round_id = ${roundId}::uuid and p.record_id = x.id`)
}

/**
 * The round in which a colleague has this person in hand, who is about to be called on a number: held fast until the
 * transaction around has ended. Null for a call that is none of a round's.
 *
 * @throws Problem 409 `called-in-round` where this number was called in the round already, for another record
 */
export async function roundOfCall(asker: SignedIn, recordId: string, number: string): Promise<StoredRound | null> {
  return tx(async (database) => {
    const [mine] = await database
      .select({ roundId: roundPerson.roundId, round: callRound })
      .from(roundPerson)
      .innerJoin(callRound, eq(callRound.id, roundPerson.roundId))
      .where(and(eq(roundPerson.colleagueId, asker.id), eq(roundPerson.recordId, recordId), eq(roundPerson.state, 'held')))
      .for('update', { of: roundPerson })
    if (!mine) return null
    const [twin] = await database.select({ id: roundPerson.recordId }).from(roundPerson)
      .where(and(eq(roundPerson.roundId, mine.roundId), eq(roundPerson.number, number), eq(roundPerson.state, 'called')))
    if (twin)
      throw conflict(
        'called-in-round',
        'Called already',
        'This number was called in this round already, for another record that has it too. Skip this one.',
      )
    return mine.round
  })
}

/** Whoever was in hand is called: from here on nobody else calls them in this round. */
export async function calledInRound(
  asker: SignedIn,
  round: StoredRound,
  { recordId, callId, number }: { recordId: string, callId: string, number: string },
  now: Date,
): Promise<void> {
  await happen(round.id, recordId, { kind: 'call', by: asker.id, at: now.getTime() }, { callId, number })
  announceRound(round)
}

/** What a colleague says of somebody: skip, come back to later, or put back among those who wait. */
export async function sayOf(asker: SignedIn, roundId: string, recordId: string, say: Saying, now: Date): Promise<void> {
  await tx(async () => {
    const round = await mustHoldRound(asker, roundId)
    const event: RoundEvent = say === 'again' ? { kind: 'again', at: now.getTime() } : { kind: say, by: asker.id, at: now.getTime() }
    if (!await happen(roundId, recordId, event)) await whyNot(roundId, recordId, say)
    announceRound(round)
  })
}

async function whyNot(roundId: string, recordId: string, say: Saying): Promise<never> {
  const [found] = await read(database =>
    database
      .select({ state: roundPerson.state })
      .from(roundPerson)
      .where(and(eq(roundPerson.roundId, roundId), eq(roundPerson.recordId, recordId))),
  )
  if (!found) throw notFound('person in this round')
  throw conflict(
    'not-in-hand',
    'Not any more',
    say === 'again'
      ? 'This person waits in the round already.'
      : 'You do not have this person in hand any more: somebody else does, or it is done.',
  )
}

/** Whoever this colleague has in hand, in whatever round, waits again: for when they go away. */
export async function letGoOfAll(asker: SignedIn, now: Date): Promise<void> {
  await tx(async (database) => {
    const held = await database
      .select({ roundId: roundPerson.roundId, recordId: roundPerson.recordId })
      .from(roundPerson)
      .where(and(eq(roundPerson.colleagueId, asker.id), eq(roundPerson.state, 'held')))
    for (const { roundId, recordId } of held) await happen(roundId, recordId, { kind: 'let-go', by: asker.id, at: now.getTime() })
  })
}
