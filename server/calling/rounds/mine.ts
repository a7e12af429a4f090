import { sql } from 'drizzle-orm'
import { STANDINGS } from '~~/core/call/round'
import type { InHand, MyRound, StandingCounts } from '~~/shared/rounds'
import { ask } from '../../db/door'
import { at, milliseconds } from '../../db/instants'
import { callRound, record, roundColleague, roundPerson } from '../../db/schema'
import { seesRecord } from '../../reading/visible'
import type { SignedIn } from '../../identity/sign-in'
import { JOIN_REACH } from './facts'

/** How many people of a round `w` stand where, as an object. */
export const COUNTS = sql`(select coalesce(jsonb_object_agg(s.state, s.count), '{}')
  from (select state, count(*)::int as count from ${roundPerson} where round_id = w.id group by state) s)`

export const countsOf = (found: Partial<StandingCounts>): StandingCounts =>
  Object.fromEntries(STANDINGS.map(state => [state, found[state] ?? 0])) as StandingCounts

type Row = Record<string, unknown>
  & Pick<MyRound, 'id' | 'name' | 'state' | 'pauseSeconds' | 'inHand' | 'nextAt'> & { counts: Partial<StandingCounts> }

/** The round I am on and whom I have in hand; null if I am on none. */
export async function myRound(asker: SignedIn, now: Date): Promise<MyRound | null> {
  const mayHave = seesRecord(asker, 'r')
  const { rows: [found] } = await ask<Row>(sql`
    select w.id, w.name, w.state, w.pause_seconds as "pauseSeconds", ${COUNTS} as counts,
      (select jsonb_build_object('recordId', r.id, 'name', r.name, 'firstName', coalesce(r.first_name, r.name), 'phoneId',
        reach.id, 'number', reach.e164)
        from ${roundPerson} p join ${record} r on r.id = p.record_id ${JOIN_REACH}
        where p.round_id = w.id and p.state = 'held' and p.colleague_id = ${asker.id}::uuid limit 1) as "inHand",
      (select min(greatest(${milliseconds(at(now))}, ${milliseconds(sql`case p.state when 'held' then p.held_until
        else p.not_before end`)})) from ${roundPerson} p join ${record} r on r.id = p.record_id
        where p.round_id = w.id and p.state in ('waiting', 'held') and p.colleague_id is distinct from ${asker.id}::uuid
          and ${mayHave}) as "nextAt"
    from ${roundColleague} m join ${callRound} w on w.id = m.round_id
    where m.colleague_id = ${asker.id}::uuid and m.left_at is null`)
  return found ? { ...found, inHand: found.inHand as InHand | null, counts: countsOf(found.counts) } : null
}
