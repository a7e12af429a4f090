import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { call } from '../db/schema'
import { announceCall } from './stored'

/** Somebody has said for whom a call was; nothing for an entry that is none. */
export async function callIsWith(activityId: string, recordId: string): Promise<void> {
  await tx(async (database) => {
    const [changed] = await database.update(call).set({ recordId }).where(eq(call.activityId, activityId)).returning()
    if (changed) await announceCall(changed)
  })
}
