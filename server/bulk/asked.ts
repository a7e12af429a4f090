import { sql } from 'drizzle-orm'
import { gatherSame } from '~~/core/request/same'
import { MOST_ASKING, type BulkAsked, type WhoAsks } from '~~/shared/bulk-texts'
import { ask } from '../db/door'
import { milliseconds } from '../db/instants'
import { activityContent, bulkPerson, conversation, line, message, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord, visible } from '../reading/visible'
import { mustSeeBulk } from './one'

type Row = Record<string, unknown> & WhoAsks

/** What those ask who have answered a bulk text and wait for an answer, gathered by what they ask for. The longest waiting first. */
export async function readAsked(asker: SignedIn, id: string): Promise<BulkAsked> {
  await mustSeeBulk(asker, id)
  const { rows } = await ask<Row>(sql`
    select distinct on (v.waits_since, v.id) r.id as "recordId", r.name, v.id as "conversationId", ${milliseconds(sql`v.waits_since`)} as at, (
      select coalesce(string_agg(t.words, ${'\n'} order by m.made_at), '') from ${message} m join ${activityContent} t on t.activity_id = m.activity_id
      where m.conversation_id = v.id and m.direction = 'in' and m.made_at >= v.waits_since) as words
    from ${bulkPerson} p
    join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    join ${conversation} v on v.remote = p.e164 and v.waits_since is not null
    join ${line} l on l.id = v.line_id and ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
    where p.bulk_id = ${id}::uuid and p.standing = 'texted' and p.answered_at is not null
    order by v.waits_since, v.id limit ${sql.raw(String(MOST_ASKING + 1))}`)
  const shown = rows.slice(0, MOST_ASKING)
  const gathered = gatherSame(shown.map(({ conversationId, words }) => ({ id: conversationId, words })))
  const found = new Map(shown.map(one => [one.conversationId, one]))
  const who = (ids: string[]) => ids.map(one => found.get(one)!)
  return {
    same: gathered.same.map(({ topic, word, ids }) => ({ topic, word, people: who(ids) })),
    alone: who(gathered.alone),
    other: who(gathered.other),
    more: rows.length > MOST_ASKING,
  }
}
