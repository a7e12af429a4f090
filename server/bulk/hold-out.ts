import { drawFor } from './draw'

/**
 * Whether somebody is held back, by chance.
 *
 * @param percent how many of a hundred
 */
export const isHeldOut = (bulkId: string, recordId: string, percent: number): boolean =>
  percent > 0 && drawFor(bulkId, recordId) < percent / 100
