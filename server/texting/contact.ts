import { sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { activityOnRecord, record } from '../db/schema'

/** A text or a call, in either direction: the records it was with were contacted then, and what they belong to. */
export async function touchContact(activityId: string, at: Date): Promise<void> {
  await tx(database => database.execute(sql`
    update ${record} set last_contact_at = greatest(last_contact_at, ${at.toISOString()}::timestamptz)
    where id in (select s.record_id from ${activityOnRecord} s where s.activity_id = ${activityId}::uuid and s.along_line_id is null)`))
}
