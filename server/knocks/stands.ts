import { sql, type SQL } from 'drizzle-orm'
import { at } from '../db/instants'
import { conversation, task } from '../db/schema'

/**
 * Whether a knock `k` still calls for action: nobody has taken it, and what it is about has not been settled otherwise. That is
 * read where it stands, so that no way to answer can forget to end it.
 */
export const stands = (now: Date): SQL => sql`(k.ended_at is null and case when k.task_id is not null
  then exists (select 1 from ${task} t where t.id = k.task_id and t.done_at is null and t.due_at <= ${at(now)})
  else exists (select 1 from ${conversation} o where o.id = k.conversation_id and o.waits_since <= k.at) end)`
