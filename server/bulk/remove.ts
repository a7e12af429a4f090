import { eq } from 'drizzle-orm'
import { afterStep } from '~~/core/bulk/states'
import { tx } from '../db/door'
import { bulkText } from '../db/schema'
import { conflict } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announceBulk, mustHoldBulk } from './one'

/**
 * Removes one that has not been started, with what was written and found in it. Its people stay as they are.
 *
 * @throws Problem 409 once it has been started: what was sent in it stays to be seen
 */
export async function removeBulk(asker: SignedIn, id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const bulk = await mustHoldBulk(asker, id)
    if (afterStep(bulk.state, 'write') === null)
      throw conflict('started', 'Started already', 'It has been started, so it stays. Stop it, if what has not gone is not to go.')
    await database.delete(bulkText).where(eq(bulkText.id, id))
    await note('bulk-removed', asker.id, now, { bulkId: id, name: bulk.name })
    announceBulk(bulk)
  })
}
