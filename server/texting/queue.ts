import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { measureText } from '~~/core/text/measure'
import { once } from '../db/door'
import { at } from '../db/instants'
import { activity, activityContent, activityOnRecord, conversation, job, message, phone, record } from '../db/schema'
import { HAND_OVER } from '../jobs/kinds'
import { wakeOutbox } from '../jobs/wake'
import { announceShown, type ShownRow } from './announce'
import type { Line } from './lines'

export interface Queued { id: string, activityId: string, leavesAt: number }

export interface Outgoing {
  id: string
  line: Line
  to: string
  /** The record from which it was written. */
  recordId: string | null
  text: string
  authorId: string | null
  templateId: string | null
  templateVersion: number | null
  nightAllowed: boolean
  confirmsOptOut: boolean
  leavesAt: Date
}

/**
 * Writes everything about a text in one statement: the conversation, where nothing waits any more once a
 * person has written; the entry with its words, on every record that holds the number and on their
 * companies; the message; and the job that hands it over.
 */
export async function queueText(out: Outgoing, now: Date): Promise<Queued> {
  const { encoding, units, parts } = measureText(out.text)
  const activityId = uuid()
  const privateLine = out.line.private ? out.line.id : null
  const { rows } = await once<ShownRow>(sql`
    with before as (
      select id, waits_since from ${conversation} where line_id = ${out.line.id}::uuid and other = ${out.to}
    ), talk as (
      insert into ${conversation} as v (id, line_id, other, last_at) values (${uuid()}::uuid, ${out.line.id}::uuid, ${out.to}, ${at(now)})
      on conflict (line_id, other) do update set last_at = excluded.last_at,
        waits_since = case when ${out.authorId !== null} then null else v.waits_since end
      returning id
    ), happened as (
      insert into ${activity} (id, at, kind, colleague_id, message_id) values (${activityId}::uuid, ${at(now)}, 'text-out', ${out.authorId}::uuid, ${out.id}::uuid)
      returning id
    ), said as (
      insert into ${activityContent} (activity_id, words) select id, ${out.text} from happened
    ), holders as (
      select distinct r.id, r.company_id, r.owner_id, r.team_id from ${phone} p join ${record} r on r.id = p.record_id where p.e164 = ${out.to}
    ), shown as (
      insert into ${activityOnRecord} (record_id, at, activity_id, via_record_id, private_line_id)
      select record_id, ${at(now)}, (select id from happened), via, ${privateLine}::uuid from (
        select id as record_id, null::uuid as via from holders
        union all select company_id, id from holders where company_id is not null
      ) places
      on conflict do nothing
    ), told as (
      insert into ${message} (id, conversation_id, activity_id, direction, origin, author_id, record_id, template_id, template_version, state,
        night_allowed, confirms_opt_out, answers_since, encoding, units, parts, made_at, leaves_at)
      select ${out.id}::uuid, talk.id, (select id from happened), 'out', ${out.authorId ? 'by-hand' : 'automatic'}, ${out.authorId}::uuid, ${out.recordId}::uuid,
        ${out.templateId}::uuid, ${out.templateVersion}::int, 'waiting', ${out.nightAllowed}, ${out.confirmsOptOut},
        case when ${out.authorId !== null} then (select waits_since from before) end, ${encoding}, ${units}, ${parts}, ${at(now)}, ${at(out.leavesAt)}
      from talk
      returning id, activity_id, conversation_id
    ), later as (
      insert into ${job} (id, kind, key, payload, lane, order_at, due_at)
      values (${uuid()}::uuid, ${HAND_OVER}, ${`${HAND_OVER} ${out.id}`}, ${JSON.stringify({ messageId: out.id })}::jsonb, ${`${out.line.e164} ${out.to}`}, ${at(now)}, ${at(out.leavesAt)})
    )
    select (select conversation_id from told) as conversation_id, ${out.line.colleagueId}::uuid as line_colleague, ${out.line.teamId}::uuid as line_team,
      (select json_agg(json_build_object('recordId', place, 'activityId', ${activityId}::uuid, 'ownerId', owner_id, 'teamId', team_id))
        from (select id as place, owner_id, team_id from holders union all select company_id, owner_id, team_id from holders where company_id is not null) places) as shown`)
  announceShown(rows)
  wakeOutbox(out.leavesAt)
  return { id: out.id, activityId, leavesAt: out.leavesAt.getTime() }
}
