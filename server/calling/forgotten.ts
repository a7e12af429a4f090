import { and, isNull, lt } from 'drizzle-orm'
import { read } from '../db/door'
import { call } from '../db/schema'
import { addToCall } from './stored'

/** No call of ours lasts longer; of one that seems to, the end has not reached us. */
const LONGEST_MS = 4 * 3_600_000

/** Ends calls of which nobody tells any more, so that whoever made them can dial again. */
export async function endForgotten(now: Date): Promise<void> {
  const forgotten = await read(database =>
    database
      .select({ id: call.id })
      .from(call)
      .where(and(isNull(call.endedAt), lt(call.madeAt, new Date(now.getTime() - LONGEST_MS)))),
  )
  for (const { id } of forgotten) await addToCall(id, { kind: 'ended', at: now.getTime(), why: 'network', side: 'network' })
}
