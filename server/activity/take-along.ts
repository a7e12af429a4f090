import { sql } from 'drizzle-orm'
import { once } from '../db/door'
import { activity, activityOnRecord, call, conversation, conversationEvent, line, message, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { contacted } from './contact'
import { isShown } from './in-sql'
import { placesOf } from './places'
import { mayReadEntry } from '../reading/entries'

type Shown = Record<string, unknown> & {
  entries: number
  owner_id: string
  team_id: string
  calls: { id: string, ownerId: string | null, teamId: string | null }[]
}

/**
 * A record has a number that it did not have before. What was said under it and with nobody on record is with this one
 * from now on; what was with others shows here besides, to those who may read it. Of neither does anything come that
 * whoever wrote the number down may not read.
 *
 * It is the same for hands, files and programs.
 */
export async function takeAlong(asker: SignedIn, recordId: string, e164: string): Promise<void> {
  const { rows: [shown] } = await once<Shown>(sql`
    with said as (
      select m.activity_id, v.line_id from ${message} m join ${conversation} v on v.id = m.conversation_id where v.remote = ${e164}
      union all select e.activity_id, v.line_id from ${conversationEvent} e join ${conversation} v on v.id = e.conversation_id
        where v.remote = ${e164}
      union all select k.activity_id, k.line_id from ${call} k where k.remote = ${e164}
    ), readable as (
      select a.id, a.at, a.kind, said.line_id, l.private,
        exists (select 1 from ${activityOnRecord} o where o.activity_id = a.id and o.via_record_id is null
          and o.along_line_id is null) as with_others
      from said join ${activity} a on a.id = said.activity_id join ${line} l on l.id = said.line_id
      where ${mayReadEntry(asker, sql`a.id`)}
    ), shown as (
      ${isShown(sql`
        select place.record_id, e.at, e.id, place.via, case when e.private then e.line_id end, place.along
        from readable e cross join lateral (
          with holder as (select r.id, r.company_id, case when e.with_others then e.line_id end as along_line_id from ${record} r
            where r.id = ${recordId}::uuid)
          ${placesOf(sql`holder`)}
        ) place`)}
    ), contacted as (
      ${contacted(sql`select record_id, max(at) as at from shown where along_line_id is null group by record_id`)}
    ), calls as (
      update ${call} k set record_id = ${recordId}::uuid from readable e where k.activity_id = e.id and not e.with_others
        and k.record_id is null
      returning k.id, k.line_id
    )
    select (select count(*)::int from shown) as entries, r.owner_id, r.team_id,
      (select coalesce(json_agg(json_build_object('id', calls.id, 'ownerId', l.colleague_id, 'teamId', l.team_id)), '[]'::json)
        from calls join ${line} l on l.id = calls.line_id) as calls
    from ${record} r where r.id = ${recordId}::uuid`)
  if (shown && shown.entries > 0) announce({ kind: 'record', recordId }, 'record.see', [{ ownerId: shown.owner_id, teamId: shown.team_id }])
  // on whose shelf they stand they have a name from now on
  for (const { id, ...belongs } of shown?.calls ?? []) announce({ kind: 'call', callId: id }, 'line.answer', [belongs])
}
