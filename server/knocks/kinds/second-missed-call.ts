import { sql } from 'drizzle-orm'
import { ask } from '../../db/door'
import { at } from '../../db/instants'
import { call } from '../../db/schema'
import type { KnockSource } from '../source'

/** Somebody calls again whom nobody has answered, while they wait. */
export const secondMissedCall: KnockSource = {
  async cameIn({ what, conversation: { lineId, remote, waitsSince }, at: when }) {
    if (what === 'text' || !waitsSince) return false
    const { rows: [found] } = await ask<{ missed: number }>(sql`
      select count(*)::int as missed from ${call} k where k.remote = ${remote} and k.line_id = ${lineId}::uuid and k.direction = 'in'
        and k.colleague_id is null and k.ended_at between ${at(waitsSince)} and ${at(when)}`)
    return found!.missed > 1
  },
}
