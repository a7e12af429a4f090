import { desc, eq } from 'drizzle-orm'
import { proposeLine } from '~~/core/lines/proposed'
import type { Asker } from '~~/shared/permissions'
import { read } from '../db/door'
import { conversation } from '../db/schema'
import { linesOf } from '../texting/lines'

/** The line from which a number is called when nobody has said which: the one that is proposed for it. */
export async function lineToCall(asker: Asker, e164: string): Promise<string | null> {
  const mine = (await linesOf(asker)).filter(one => one.active)
  const used = await read(database =>
    database
      .select({ lineId: conversation.lineId })
      .from(conversation)
      .where(eq(conversation.remote, e164))
      .orderBy(desc(conversation.lastAt)),
  )
  const last = used.find(({ lineId }) => mine.some(({ id }) => id === lineId))
  return proposeLine(mine, e164, last?.lineId ?? undefined)?.line.id ?? null
}
