import { sql } from 'drizzle-orm'
import type { LeftOutReason } from '~~/core/bulk/fate'
import { v7 as uuid } from 'uuid'
import { ask } from '../db/door'
import { at, textArray } from '../db/instants'
import { bulkPerson, bulkText } from '../db/schema'
import { isHeldOut } from './hold-out'
import type { Judged } from './judge'
import type { StoredBulk } from './one'

/** What was found of somebody, and where they stand among the others. */
export type Placed = Judged & { position: number }

/** Whoever was taken out by hand stays out. The first who has a number gets the text, as the people stand. */
export async function storeJudged(bulk: StoredBulk, judged: Placed[], now: Date): Promise<void> {
  const numbers = judged.flatMap(({ e164, standing }) => standing === 'ready' && e164 ? [e164] : [])
  const { rows } = await ask<{ e164: string, here: boolean }>(sql`
    select e164, bulk_id = ${bulk.id}::uuid as here from ${bulkPerson}
    where occasion_id = ${bulk.occasionId}::uuid and e164 = any(${textArray(numbers)}) and standing in ('ready', 'texted')
    union all select e164, bulk_id = ${bulk.id}::uuid from ${bulkPerson}
    where bulk_id in (select b.id from ${bulkText} b where b.occasion_id = ${bulk.occasionId}::uuid) and standing = 'held-out'
      and e164 = any(${textArray(numbers)})`)
  const taken = new Map<string, LeftOutReason>(rows.map(({ e164, here }) => [e164, here ? 'same-number' : 'other-audience']))
  const people = judged.map((one) => {
    const again = one.standing === 'ready' ? taken.get(one.e164!) : undefined
    if (one.standing === 'ready' && !again) taken.set(one.e164!, 'same-number')
    const held = one.standing === 'ready' && isHeldOut(bulk.id, one.recordId, bulk.holdOut)
    return { ...one, id: uuid(), ...(held && { standing: 'held-out' }), ...(again && { standing: 'left-out', reason: again }) }
  })
  await ask(sql`
    insert into ${bulkPerson} as b (id, bulk_id, occasion_id, record_id, position, standing, reason, detail, lately, phone_id, e164, line_id, zones, places,
      wish_from, wish_to, words, units, parts, ref, changed_at)
    select x.id, ${bulk.id}::uuid, ${bulk.occasionId}::uuid, x."recordId", x.position, x.standing, x.reason, x.detail, x.lately, x."phoneId", x.e164, x."lineId", x.zones, x.places,
      x."wishFrom", x."wishTo", x.words, x.units, x.parts, x.ref, ${at(now)}
    from jsonb_to_recordset(${JSON.stringify(people)}::jsonb) as x(id uuid, "recordId" uuid, position int, standing text, reason text,
      detail text, lately boolean, "phoneId" uuid, e164 text, "lineId" uuid, zones text, places text, "wishFrom" int, "wishTo" int, words text, units int,
      parts int, ref text)
    on conflict (bulk_id, record_id) do update set position = excluded.position,
      standing = case when b.standing = 'taken-out' then b.standing else excluded.standing end,
      reason = excluded.reason, detail = excluded.detail, lately = excluded.lately, phone_id = excluded.phone_id, e164 = excluded.e164,
      line_id = excluded.line_id, zones = excluded.zones, places = excluded.places, wish_from = excluded.wish_from, wish_to = excluded.wish_to, words = excluded.words,
      units = excluded.units, parts = excluded.parts, ref = excluded.ref, changed_at = excluded.changed_at
    where b.standing not in ('texted', 'refused')`)
}
