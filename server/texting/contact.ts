import { sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { activityOnRecord, message, record } from '../db/schema'

/** A text went out or came in: the records on whose timelines it shows were contacted then. */
export async function touchContact(messageId: string, at: Date): Promise<void> {
  await tx(database => database.execute(sql`
    update ${record} set last_contact_at = greatest(last_contact_at, ${at.toISOString()}::timestamptz)
    where id in (select s.record_id from ${activityOnRecord} s join ${message} m on m.activity_id = s.activity_id where m.id = ${messageId})`))
}
