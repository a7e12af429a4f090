import { and, eq, isNotNull, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Module } from '~~/shared/modules'
import { ask, tx } from '../db/door'
import { record, view } from '../db/schema'
import type { HandsOn } from '../identity/hands-on'
import { changeThose } from './bulk'

/** Records go as a change of many, which says so on each timeline; lists that are shared with a team go along. */
export const records: HandsOn = {
  async count(colleagueId) {
    const { rows: [found] } = await ask<{ records: number }>(sql`select count(*)::int as records from ${record} where owner_id = ${colleagueId}::uuid`)
    return found!
  },

  async handOn(asker, from, to, now) {
    const { rows } = await ask<{ module: Module }>(sql`select distinct module from ${record} where owner_id = ${from}::uuid`)
    for (const { module } of rows) {
      const theirs = sql`select id, row_number() over (order by id) as place from ${record} where owner_id = ${from}::uuid and module = ${module}`
      await changeThose(asker, { id: uuid(), module, change: { kind: 'owner', ownerId: to.id } }, theirs, now)
    }
    await tx(database => database.update(view).set({ ownerId: to.id }).where(and(eq(view.ownerId, from), isNotNull(view.teamId))))
  },
}
