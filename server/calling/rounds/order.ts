import { sql, type SQL } from 'drizzle-orm'
import { byLocalTime } from '~~/core/call/by-local-time'
import { ask } from '../../db/door'
import { roundPerson } from '../../db/schema'
import type { StoredRound } from './one'

/** The order in which the people `p` of a round have their turns, as it is now. */
export async function turnsOf(round: StoredRound, now: Date): Promise<SQL> {
  return round.order === 'local-time'
    ? sql`p.turn, array_position(${await placesInOrder(round.id, now)}, p.zones), p.position`
    : sql`p.turn, p.position`
}

/** The places of those who wait, those first whose hours end soonest, as an array for SQL. */
async function placesInOrder(roundId: string, now: Date) {
  const { rows } = await ask<{ zones: string }>(sql`select distinct zones from ${roundPerson} where round_id = ${roundId}::uuid
    and state in ('waiting', 'held')`)
  const places = byLocalTime(rows.map(({ zones }) => zones.split(' ').filter(Boolean)), now.getTime())
  return sql`array(select jsonb_array_elements_text(${JSON.stringify(places.map(zones => zones.join(' ')))}::jsonb))`
}
