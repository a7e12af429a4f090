import { and, asc, eq, gt, lte, sql } from 'drizzle-orm'
import { read } from '../../db/door'
import { milliseconds } from '../../db/instants'
import { conversation, knock, line } from '../../db/schema'
import { isOpenAt } from '../../texting/line-open'
import type { KnockSource } from '../source'
import { leadsOf } from '../whom'

const MINUTE = 60_000
/** Who has waited for longer than a long weekend is found in the list of who waits. */
const LONGEST_MS = 4 * 86_400_000
const AT_ONCE = 50

/** A conversation waits longer than the firm lets anybody wait while its line is answered: it knocks at the lead. */
export const waitsTooLong: KnockSource = {
  async due({ waitsMinutes }, now) {
    if (waitsMinutes === null) return []
    const limit = new Date(now.getTime() - waitsMinutes * MINUTE)
    const once = sql<string>`'waits-too-long ' || ${conversation.id} || ' ' || ${milliseconds(conversation.waitsSince)}`
    const found = await read(database => database
      .select({ conversation, line, once })
      .from(conversation)
      .innerJoin(line, eq(line.id, conversation.lineId))
      .where(and(
        lte(conversation.waitsSince, limit),
        gt(conversation.waitsSince, new Date(now.getTime() - LONGEST_MS)),
        sql`not exists (select 1 from ${knock} k where k.once = ${once})`,
      ))
      .orderBy(asc(conversation.waitsSince))
      .limit(AT_ONCE))
    const due = []
    for (const one of found) {
      // what came in by night has its time from the morning on
      if (!isOpenAt(one.line, now) || !isOpenAt(one.line, limit)) continue
      due.push({
        about: { conversationId: one.conversation.id },
        once: one.once,
        words: '',
        at: now,
        step: 'lead' as const,
        whom: await leadsOf(one.line),
      })
    }
    return due
  },
}
