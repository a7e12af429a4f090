import { sql } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { ScheduledText } from '~~/shared/record'
import { ask } from '../db/door'
import { milliseconds } from '../db/instants'
import { activityContent, activityOnRecord, colleague, conversation, message, numberState } from '../db/schema'
import { mayRead } from '../reading/entries'

/** Texts on a record's timeline that are to leave later, the next first. Whoever calls has checked that the record may be seen. */
export async function scheduledOn(asker: Asker, recordId: string): Promise<ScheduledText[]> {
  const { rows } = await ask<ScheduledText & Record<string, unknown>>(sql`
    select m.id, m.activity_id as "activityId", t.words, ${milliseconds(sql`m.leaves_at`)} as "leavesAt", m.wall_time as "wallTime",
      m.wall_zone as zone, m.author_id as "authorId", c.first_name as author, coalesce(n.texts = 'refused', false) as "optedOut"
    from ${message} m
    join ${activityOnRecord} s on s.activity_id = m.activity_id and s.record_id = ${recordId}::uuid and ${mayRead(asker)}
    join ${conversation} v on v.id = m.conversation_id
    left join ${numberState} n on n.e164 = v.remote
    left join ${activityContent} t on t.activity_id = m.activity_id
    left join ${colleague} c on c.id = m.author_id
    where m.wall_time is not null and m.state = 'waiting'
    order by m.leaves_at limit 20`)
  return rows
}
