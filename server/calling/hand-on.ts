import { sql } from 'drizzle-orm'
import { ask, once, tx } from '../db/door'
import { at } from '../db/instants'
import { callRound, roundColleague, roundPerson, spokenMessage } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'

/** Call rounds and spoken messages; whom they were about to call in one of others waits for the next again. */
export const calling: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ rounds: number }>(sql`
      select count(*)::int as rounds from ${callRound} where made_by = ${colleagueId}::uuid and state <> 'ended'`)
    return found!
  },

  async handOn(_asker, from, to, now) {
    await tx(async () => {
      await once(sql`update ${callRound} set made_by = ${to.id}::uuid where made_by = ${from}::uuid`)
      await once(sql`update ${spokenMessage} set owner_id = ${to.id}::uuid where owner_id = ${from}::uuid`)
      await once(sql`update ${roundPerson} set state = 'waiting', colleague_id = null where colleague_id = ${from}::uuid and state = 'held'`)
      await once(sql`update ${roundColleague} set left_at = ${at(now)} where colleague_id = ${from}::uuid and left_at is null`)
    })
  },
}
