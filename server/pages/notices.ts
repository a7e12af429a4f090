import { sql } from 'drizzle-orm'
import type { Module } from '~~/shared/modules'
import type { PastNotice, PastNotices } from '~~/shared/notices'
import type { NoticesQuery } from '~~/shared/schemas/inbox'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { activity, activityContent, call, colleague, conversation, conversationEvent, line, message, phone, record, recording } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { joinContact } from '../reading/contact'
import { seesRecord, visible } from '../reading/visible'
import { seenUntil } from './inbox'

/** What came in longer ago is in the inbox, and tells nobody anything any more. */
const LASTS_MS = 14 * 86_400_000
const MOST = 200

/**
 * What came in over the lines that I answer, and what was assigned to me, the newest first. With it whoever was away, or whose
 * connection was, hears of what they have missed.
 */
export async function readNotices(asker: SignedIn, { after }: NoticesQuery, now: Date): Promise<PastNotices> {
  const since = at(new Date(Math.max(after, now.getTime() - LASTS_MS)))
  const most = sql.raw(String(MOST + 1))
  const { rows } = await ask<Row>(sql`
    with mine as (
      select l.id, l.name from ${line} l
      where ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
    ), came as (
      (select m.activity_id as id, 'text' as kind, m.made_at as at, m.conversation_id, null::uuid as by_id
        from ${message} m join ${conversation} w on w.id = m.conversation_id join mine on mine.id = w.line_id
        where m.direction = 'in' and m.made_at > ${since} order by m.made_at desc limit ${most})
      union all
      (select k.activity_id, case when exists (select 1 from ${recording} s where s.call_id = k.id) then 'voicemail' else 'missed-call' end,
          k.ended_at, w.id, null
        from ${call} k join mine on mine.id = k.line_id join ${conversation} w on w.line_id = k.line_id and w.remote = k.remote
        where k.direction = 'in' and k.colleague_id is null and k.ended_at > ${since} order by k.made_at desc limit ${most})
      union all
      (select e.activity_id, 'handed', e.at, w.id, a.colleague_id
        from ${conversation} w join mine on mine.id = w.line_id join ${conversationEvent} e on e.conversation_id = w.id
        join ${activity} a on a.id = e.activity_id and a.kind = 'assigned' and a.data->>'toId' = ${asker.id} and a.colleague_id is distinct from ${asker.id}::uuid
        where w.assignee_id = ${asker.id}::uuid and e.at > ${since} order by e.at desc limit ${most})
    ), newest as (select * from came order by came.at desc, came.id desc limit ${most})
    select newest.id, newest.kind, ${milliseconds(sql`newest.at`)} as at, v.id as conversation_id, v.remote, mine.name as line,
      h.id as record_id, h.name as record_name, h.module, coalesce(h.holders, 0)::int as holders, left(t.words, 200) as words,
      who.first_name as by, newest.at > ${seenUntil(asker)} as unseen, v.waits_since is not null as waits
    from newest join ${conversation} v on v.id = newest.conversation_id join mine on mine.id = v.line_id
    left join ${activityContent} t on t.activity_id = newest.id
    left join ${colleague} who on who.id = newest.by_id
    left join lateral (
      select r.id, r.name, r.module, count(*) over () as holders from ${phone} p join ${record} r on r.id = p.record_id ${joinContact}
      where p.e164 = v.remote and ${seesRecord(asker, 'r')}
      order by contact.at desc nulls last limit 1
    ) h on true
    order by newest.at desc, newest.id desc`)
  return { notices: rows.slice(0, MOST).map(noticeOf), more: rows.length > MOST }
}

type Row = Record<string, unknown> & {
  id: string
  kind: PastNotice['kind']
  at: number
  conversation_id: string
  remote: string
  line: string
  record_id: string | null
  record_name: string
  module: Module
  holders: number
  words: string | null
  by: string | null
  unseen: boolean
  waits: boolean
}

const noticeOf = (row: Row): PastNotice => ({
  id: row.id,
  kind: row.kind,
  at: row.at,
  conversationId: row.conversation_id,
  record: row.record_id ? { id: row.record_id, name: row.record_name, module: row.module } : null,
  holders: row.holders,
  remote: row.remote,
  line: row.line,
  words: row.words ?? '',
  by: row.by,
  unseen: row.unseen,
  waits: row.waits,
})
