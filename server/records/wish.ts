import type { HoursWindow } from '~~/core/hours/week'
import { markHours } from '~~/core/hours/wish'
import { record } from '../db/schema'

/** What of a record says between which hours its person wants to be reached. */
export const WISH_COLUMNS = { wishFrom: record.wishFrom, wishTo: record.wishTo }

/** Why somebody is not to be reached at an hour, for whoever wants to. */
export function whyNotThen(reason: string, wish: HoursWindow | null): string {
  if (reason === 'wish' && wish) return `They want to be reached from ${markHours(wish)} their time only.`
  if (reason === 'closed-day') return 'It is a day on which nobody there is reached.'
  if (reason === 'place-hours') return 'That is outside of the hours in which people there are reached.'
  return reason === 'zone-unknown'
    ? 'Nobody knows what time it is there.'
    : 'That is outside of the hours in which a person there may be reached.'
}
