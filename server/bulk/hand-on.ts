import { sql } from 'drizzle-orm'
import { ask, once } from '../db/door'
import { bulkText } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'

const OPEN = sql`state not in ('stopped', 'done')`

/** One that is under way goes on, in the name of whoever has it then. */
export const bulkTexts: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ bulkTexts: number }>(sql`
      select count(*)::int as "bulkTexts" from ${bulkText} where made_by = ${colleagueId}::uuid and ${OPEN}`)
    return found!
  },

  async handOn(_asker, from, to) {
    await once(sql`update ${bulkText} set made_by = ${to.id}::uuid where made_by = ${from}::uuid`)
  },
}
