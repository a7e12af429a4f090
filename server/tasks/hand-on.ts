import { sql } from 'drizzle-orm'
import { ask, once } from '../db/door'
import { task } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'

/** What is still to do. */
export const tasks: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ tasks: number }>(sql`
      select count(*)::int as tasks from ${task} where colleague_id = ${colleagueId}::uuid and done_at is null`)
    return found!
  },

  async handOn(_asker, from, to) {
    await once(sql`update ${task} set colleague_id = ${to.id}::uuid where colleague_id = ${from}::uuid and done_at is null`)
  },
}
