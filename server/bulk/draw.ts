import { createHash } from 'node:crypto'

/**
 * A number from 0 to below 1 for somebody in a bulk text: by chance, and the same however often it is asked. What it is drawn from is the
 * bulk text's own id, which is there before anybody is looked at, so nobody can choose what comes out.
 *
 * @param what of several draws for one person
 */
export const drawFor = (bulkId: string, recordId: string, what = ''): number =>
  createHash('sha256').update(`${bulkId} ${recordId}${what}`).digest().readUInt32BE() / 2 ** 32
