import { EVERY_DAY } from './reachable'
import { markHour } from './say'
import { narrow, type HoursWindow, type ReachHours } from './week'

/** What a record says about its person's hours; null where they have not said so. */
export interface Wished { wishFrom: number | null, wishTo: number | null }

export const wishOf = ({ wishFrom, wishTo }: Wished): HoursWindow | null =>
  wishFrom === null || wishTo === null ? null : { from: wishFrom, to: wishTo }

/** The hours in which somebody may be reached: their own wish narrows those of the house, and never widens them. */
export const hoursOf = (wish: HoursWindow | null, house: ReachHours = EVERY_DAY): ReachHours =>
  wish ? narrow(house, Array.from({ length: 7 }, () => wish)) : house

/** "8:00 to 12:00", for a sentence that each reader reads in their own format. */
export const markHours = ({ from, to }: HoursWindow): string => `${markHour(from)} to ${markHour(to)}`
