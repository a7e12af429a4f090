import { sayWallMoment } from '~~/core/hours/say'
import { nextWorkingDay } from '~~/core/hours/days'
import { instantOf, wallOf, type WallMoment } from '~~/core/hours/schedule'
import type { ZoneRules } from '~~/core/hours/rules'
import { readersFormat } from './reader'
import { clock, placeOf } from './time'

/** "9:00 Honolulu time on Tue 1 Dec", with the year when it is another one. */
export const sayMoment = (moment: WallMoment) => sayWallMoment(moment, new Date().getFullYear(), readersFormat())

/** The same instant by another clock, or null where it is the same clock or no moment at all. */
export function sayElsewhere({ wallTime, zone }: WallMoment, rules: ZoneRules[], other: ZoneRules): string | null {
  const own = rules.find(({ name }) => name === zone)
  const found = own && own.name !== other.name ? instantOf(wallTime, own) : null
  if (!found?.ok || wallOf(found.instant, other) === wallTime) return null
  return `${clock(found.instant, other)} ${placeOf(other.name)} time`
}

/** Nine in the morning of the next working day in a zone (Monday to Friday: common practice). */
export function nextWorkingMorning(rules: ZoneRules, now: number): string {
  return `${nextWorkingDay(wallOf(now, rules).slice(0, 10))}T09:00`
}
