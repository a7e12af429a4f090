import { sql, type SQL } from 'drizzle-orm'
import { byLocalTime } from '~~/core/call/by-local-time'
import { ask } from '../../db/door'
import { roundPerson } from '../../db/schema'
import { readHouse } from '../../hours/house'
import type { StoredRound } from './one'

/** The order in which the people `p` of a round have their turns, as it is now. */
export async function turnsOf(round: StoredRound, now: Date): Promise<SQL> {
  return round.order === 'local-time'
    ? sql`p.turn, array_position(${await placesInOrder(round.id, now)}, p.zones || '|' || p.places), p.position`
    : sql`p.turn, p.position`
}

/** Where those who wait may be, those first whose hours end soonest, as an array for SQL. */
async function placesInOrder(roundId: string, now: Date) {
  const { rows } = await ask<{ zones: string, places: string }>(sql`select distinct zones, places from ${roundPerson}
    where round_id = ${roundId}::uuid and state in ('waiting', 'held')`)
  const house = await readHouse(now)
  const listOf = (joined: string) => joined.split(' ').filter(Boolean)
  const inOrder = byLocalTime(
    rows.map(({ zones, places }) => ({ key: keyOf(zones, places), zones: listOf(zones), hours: house(listOf(places)) })),
    now.getTime(),
  )
  return sql`array(select jsonb_array_elements_text(${JSON.stringify(inOrder.map(({ key }) => key))}::jsonb))`
}

const keyOf = (zones: string, places: string) => `${zones}|${places}`
