import { sql } from 'drizzle-orm'
import { houseHours, type ClosedDay, type PlaceChoice } from '~~/core/hours/house'
import type { ReachHours } from '~~/core/hours/week'
import { ask } from '../db/door'
import { closedDay, holidayCountry, placeHours } from '../db/schema'
import { holidaysIn } from './holidays'

/** The hours of the house for somebody who may be in any of these places. */
export type House = (places: readonly string[]) => ReachHours

interface Rules { choices: PlaceChoice[], closed: ClosedDay[], keeping: string[] }

/** The rules of the house about hours, as a column of a statement that reads other things too: `houseFrom` reads it. */
export const HOUSE_RULES = sql<string>`(select json_build_object(
  'choices', (select coalesce(json_agg(json_build_object('place', place, 'week', week)), '[]') from ${placeHours}),
  'closed', (select coalesce(json_agg(json_build_object('place', place, 'day', day)), '[]') from ${closedDay}),
  'keeping', (select coalesce(json_agg(country), '[]') from ${holidayCountry}))::text)`

/** The rules of the house about hours as they are now. */
export async function readHouse(now: Date): Promise<House> {
  const { rows: [found] } = await ask<{ rules: string }>(sql`select ${HOUSE_RULES} as rules`)
  return houseFrom(found!.rules, now)
}

let last: { rules: string, year: number, house: House } | null = null

/** They seldom change and are asked at every text: what was worked out for a place holds until they do. */
export function houseFrom(rules: string, now: Date): House {
  const year = now.getUTCFullYear()
  if (last?.rules !== rules || last.year !== year) last = { rules, year, house: houseOf(JSON.parse(rules) as Rules, year) }
  return last.house
}

function houseOf({ choices, closed, keeping }: Rules, year: number): House {
  const worked = new Map<string, ReachHours>()
  return (places) => {
    const key = places.join(' ')
    const hours = worked.get(key) ?? houseHours({ choices, closed: [...closed, ...holidaysKept(places, keeping, year)] }, places)
    worked.set(key, hours)
    return hours
  }
}

/** The holidays of those of the places that keep them, around a year: what is planned and scheduled lies within one. */
export const holidaysKept = (places: readonly string[], keeping: readonly string[], year: number): ClosedDay[] =>
  places.filter(place => keeping.includes(place.slice(0, 2)))
    .flatMap(place => [year - 1, year, year + 1].flatMap(one => holidaysIn(place, one)).map(({ day }) => ({ place, day })))
