import { markHour } from './say'
import { ALLOWED_HOURS, type HoursWindow } from './reachable'

/** What a record says about its person's hours; null where they have not said so. */
export interface Wished { wishFrom: number | null, wishTo: number | null }

export const wishOf = ({ wishFrom, wishTo }: Wished): HoursWindow | null =>
  wishFrom === null || wishTo === null ? null : { from: wishFrom, to: wishTo }

/** The hours in which somebody may be reached: their own wish narrows those of everybody, and never widens them. */
export const hoursOf = (wish: HoursWindow | null): HoursWindow =>
  wish ? { from: Math.max(wish.from, ALLOWED_HOURS.from), to: Math.min(wish.to, ALLOWED_HOURS.to) } : ALLOWED_HOURS

/** "8:00 to 12:00", for a sentence that each reader reads in their own format. */
export const markHours = ({ from, to }: HoursWindow): string => `${markHour(from)} to ${markHour(to)}`
