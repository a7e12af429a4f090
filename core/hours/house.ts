import { LAWS } from './laws'
import { EVERY_DAY } from './reachable'
import { dayNumber, narrow, without, type ReachHours, type WeekHours } from './week'

/** What an admin has said about a place: hours of their own, or that its law is not held to (null). */
export interface PlaceChoice { place: string, week: WeekHours | null }

/** A day on which nobody there is reached; everywhere where the place is null. */
export interface ClosedDay { place: string | null, day: string }

/** The rules of the house about hours. */
export interface HouseRules { choices: readonly PlaceChoice[], closed: readonly ClosedDay[] }

export const NO_RULES: HouseRules = { choices: [], closed: [] }

/** Whether what holds for a place holds in another: of a country it does in each of its states. */
export const holdsIn = (place: string | null, other: string): boolean => place === null || place === other || other.startsWith(`${place}-`)

/** Stricter hours by place that are in force: an admin's choice comes before the law. */
export function weeksInForce(choices: readonly PlaceChoice[]): { place: string, week: WeekHours }[] {
  const chosen = new Set(choices.map(({ place }) => place))
  return [...LAWS.filter(({ place }) => !chosen.has(place)), ...choices].flatMap(({ place, week }) => week ? [{ place, week }] : [])
}

/**
 * The hours in which the house reaches somebody who may be in any of these places: everybody's, narrowed by what holds in each.
 *
 * @param places ISO 3166-2, "US-TX", or a country where no more is known
 */
export function houseHours({ choices, closed }: HouseRules, places: readonly string[]): ReachHours {
  const there = (place: string | null) => place === null || places.some(one => holdsIn(place, one))
  const days = closed.filter(({ place }) => there(place)).map(({ day }) => dayNumber(day))
  const hours = weeksInForce(choices).filter(({ place }) => there(place)).reduce((narrowed, { week }) => narrow(narrowed, week), EVERY_DAY)
  return days.length > 0 ? without(hours, days) : hours
}
