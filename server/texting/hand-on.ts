import { eq, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { ask, once, tx } from '../db/door'
import { conversation, line, message } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'
import { lineBelongs } from './lines'

/**
 * Lines of their own, and conversations that they have: where the other does not answer the line, to everybody who does. Nothing
 * rings with them first any more.
 */
export const texting: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ lines: number, conversations: number, scheduled: number }>(sql`
      select (select count(*) from ${line} where colleague_id = ${colleagueId}::uuid)::int as lines,
        (select count(*) from ${conversation} where assignee_id = ${colleagueId}::uuid)::int as conversations,
        (select count(*) from ${message} where author_id = ${colleagueId}::uuid and state = 'waiting' and wall_time is not null)::int as scheduled`)
    return found!
  },

  async handOn(_asker, from, to) {
    await tx(async (database) => {
      await database.update(line).set({ colleagueId: to.id }).where(eq(line.colleagueId, from))
      await database.update(line).set({
        ringOrder: sql`${line.ringOrder} - ${from}::text`,
        takeOrder: sql`${line.takeOrder} - ${from}::text`,
      }).where(sql`${line.ringOrder} ? ${from} or ${line.takeOrder} ? ${from}`)
      const lines = await database.select().from(line)
      const answered = lines.filter(one => can(to, 'line.answer', lineBelongs(one))).map(({ id }) => id)
      await once(sql`update ${conversation} set assignee_id = case when line_id = any(${sql.param(answered)}::uuid[]) then ${to.id}::uuid end
        where assignee_id = ${from}::uuid`)
    })
  },
}
