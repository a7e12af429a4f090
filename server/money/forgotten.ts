import { sql } from 'drizzle-orm'
import { SILENCE_AFTER } from '~~/core/message/states'
import { ask, tx } from '../db/door'
import { at } from '../db/instants'
import { message, moneyHold } from '../db/schema'
import { charge, freeHeld } from './settle'

/** So many are looked at in an hour; hardly ever is there one. */
const AT_ONCE = 500

/**
 * What is held for texts whose carrier has never answered, though it may have taken them. Of those that were reported on it
 * is what they cost; of the others nobody will hear any more, and it is free again. A charge that comes after all is entered
 * all the same.
 */
export async function settleForgotten(now: Date): Promise<void> {
  const { rows } = await ask<{ id: string, taken: boolean }>(sql`
    select m.id, m.state <> 'not-known' as taken from ${moneyHold} h join ${message} m on m.id = h.message_id
    where m.state in ('accepted', 'unreported', 'sent', 'undelivered', 'delivered', 'not-known')
      and m.handed_at < ${at(now.getTime() - SILENCE_AFTER)} limit ${sql.raw(String(AT_ONCE))}`)
  await tx(async () => {
    await freeHeld(rows.filter(({ taken }) => !taken).map(({ id }) => id))
    for (const { id } of rows.filter(({ taken }) => taken)) await charge(id, null, now)
  })
}
