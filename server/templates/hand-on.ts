import { sql } from 'drizzle-orm'
import { ask, once } from '../db/door'
import { template } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'

/** Theirs alone too: what they have worked out is of use to whoever goes on. */
export const templates: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ templates: number }>(sql`
      select count(*)::int as templates from ${template} where owner_id = ${colleagueId}::uuid and retired_at is null`)
    return found!
  },

  async handOn(_asker, from, to) {
    await once(sql`update ${template} set owner_id = ${to.id}::uuid where owner_id = ${from}::uuid`)
  },
}
