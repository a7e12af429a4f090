import { sql } from 'drizzle-orm'
import type { KnockKind, KnockStep } from '~~/core/knock/kinds'
import type { Knock, Knocks } from '~~/shared/knocks'
import type { Module } from '~~/shared/modules'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { colleague, conversation, knock, knockFor, line, phone, record, task } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { stands } from '../knocks/stands'
import { joinContact } from '../reading/contact'
import { seesRecord, visible } from '../reading/visible'

const LASTS_MS = 86_400_000
const MOST = sql.raw('100')

/** What knocks at me, and what did within the last day, with who has taken it. What I may not see any more is left out. */
export async function readKnocks(asker: SignedIn, now: Date): Promise<Knocks> {
  const { rows } = await ask<Row>(sql`
    select k.id, k.kind, ${milliseconds(sql`k.at`)} as at, k.times, k.words, f.step, coalesce(f.seen_at >= k.at, false) as seen,
      ${stands(now)} as stands, ${milliseconds(sql`k.ended_at`)} as ended_at, by.id as taken_by, by.first_name as taken_by_name,
      v.id as conversation_id, ${milliseconds(sql`v.waits_since`)} as waits_since, has.first_name as assignee, l.name as line, v.remote,
      t.id as task_id, h.id as record_id, h.name as record_name, h.module, h.phone_id
    from ${knockFor} f join ${knock} k on k.id = f.knock_id
    left join ${colleague} by on by.id = k.taken_by
    left join ${conversation} v on v.id = k.conversation_id
    left join ${line} l on l.id = v.line_id
    left join ${colleague} has on has.id = v.assignee_id
    left join ${task} t on t.id = k.task_id
    left join lateral (
      select r.id, r.name, r.module, p.id as phone_id from ${record} r left join ${phone} p on p.record_id = r.id and (v.id is null or p.e164 = v.remote)
        ${joinContact}
      where ${seesRecord(asker, 'r')} and (r.id = t.record_id or p.e164 = v.remote)
      order by contact.at desc nulls last, p.position limit 1
    ) h on true
    where f.colleague_id = ${asker.id}::uuid and k.at > ${at(now.getTime() - LASTS_MS)}
      and case when k.task_id is null then ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })} else h.id is not null end
      and (f.step <> 'owner' or v.assignee_id is null or v.assignee_id = ${asker.id}::uuid or k.ended_at is not null)
    order by stands desc, k.at desc, k.id desc limit ${MOST}`)
  return { knocks: rows.map(knockOf) }
}

type Row = Record<string, unknown> & {
  id: string
  kind: KnockKind
  at: number
  times: number
  words: string
  step: KnockStep
  seen: boolean
  stands: boolean
  ended_at: number | null
  taken_by: string | null
  taken_by_name: string
  conversation_id: string | null
  waits_since: number | null
  assignee: string | null
  line: string | null
  remote: string | null
  task_id: string | null
  record_id: string | null
  record_name: string
  module: Module
  phone_id: string | null
}

const knockOf = (row: Row): Knock => ({
  id: row.id,
  kind: row.kind,
  at: row.at,
  times: row.times,
  words: row.words,
  step: row.step,
  seen: row.seen,
  state: row.stands ? 'open' : row.taken_by ? 'taken' : 'settled',
  takenBy: row.taken_by ? { id: row.taken_by, firstName: row.taken_by_name } : null,
  endedAt: row.ended_at,
  record: row.record_id ? { id: row.record_id, name: row.record_name, module: row.module } : null,
  conversationId: row.conversation_id,
  taskId: row.task_id,
  waitsSince: row.waits_since,
  assignee: row.assignee,
  line: row.line,
  remote: row.remote,
  phoneId: row.phone_id,
})
