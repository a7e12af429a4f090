import { sql, type SQL } from 'drizzle-orm'
import { once } from '../db/door'
import { at } from '../db/instants'
import { activityOnRecord, contact, record } from '../db/schema'

/**
 * Brings the last contact of records up to what has happened, as a part of a statement.
 *
 * @param latest rows of `record_id` and `at`, one for each record
 */
export const contacted = (latest: SQL): SQL => sql`
  insert into ${contact} as known (record_id, module, at)
  select latest.record_id, r.module, latest.at from (${latest}) latest join ${record} r on r.id = latest.record_id
  on conflict (record_id) do update set at = greatest(known.at, excluded.at)`

/** A text or a call, in either direction: the records it was with were contacted then, and what they belong to. */
export async function touchContact(activityId: string, when: Date): Promise<void> {
  await once(contacted(sql`
    select s.record_id, ${at(when)} as at from ${activityOnRecord} s
    where s.activity_id = ${activityId}::uuid and s.along_line_id is null group by s.record_id`))
}
