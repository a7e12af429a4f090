import { createHash } from 'node:crypto'

/**
 * Whether somebody is held back: by chance, and the same however often it is asked. What the chance is drawn from is the bulk
 * text's own id, which is there before anybody is looked at, so nobody can choose who it will be.
 *
 * @param percent how many of a hundred
 */
export function isHeldOut(bulkId: string, recordId: string, percent: number): boolean {
  if (percent === 0) return false
  const drawn = createHash('sha256').update(`${bulkId} ${recordId}`).digest().readUInt32BE()
  return drawn / 2 ** 32 < percent / 100
}
