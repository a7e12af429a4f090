import { sql, type SQL } from 'drizzle-orm'
import { CONTACT, sideOf, type ActivityKind } from '~~/core/timeline/kinds'
import type { CallDetail, CallRecording, CallShelf, RingSound, Transfer } from '~~/shared/calling'
import type { Module } from '~~/shared/modules'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { activity, activityContent, activityOnRecord, call, callDeclined, callTransfer, colleague, disposition, line, message, phone, record } from '../db/schema'
import { seesRecord, visible } from '../reading/visible'
import type { SignedIn } from '../identity/sign-in'
import { joinCompany } from '../reading/company'
import { clockRules, zonesOf } from '../records/phones'
import { isKind } from '../reading/kinds'
import { mayRead } from '../reading/entries'
import { recordingShown } from './recording-shown'
import { factsOf, storedOf } from './stored'

/** What nobody has put away for so long is only on the timeline. */
const DAY_MS = 86_400_000
/** After a key was pressed the call stays on the shelf, so that it can be taken back. */
const STAYS_MS = 60_000

/** What was said in writing, by either side: a note is for colleagues. */
const WRITTEN = [...CONTACT.ours, ...CONTACT.theirs]

type Row = Record<string, unknown> & {
  call: Record<string, unknown>
  line_name: string
  ring_sound: RingSound
  round_id: string | null
  recording: CallRecording | null
  notes: { mine: string, others: CallDetail['othersNotes'] }
  record_id: string | null
  record_name: string
  first_name: string | null
  module: Module
  title: string | null
  company: string | null
  city: string | null
  zone: string | null
  country: string | null
  region: string | null
  disposition_name: string | null
  transfer: Transfer | null
  said_at: number | null
  said: string | null
  said_kind: ActivityKind | null
  also_of: CallDetail['alsoOf'] | null
}

/**
 * The calls on my shelf: mine until I have said how they went, and those that ring on lines I answer. One that nobody took
 * waits in its conversation.
 */
export async function myCalls(asker: SignedIn, now: Date): Promise<CallDetail[]> {
  const { rows } = await ask<Row>(sql`
    select to_jsonb(c) as call, l.name as line_name, l.ring_sound, own.data->>'roundId' as round_id, ${recordingShown(sql`c.id`)} as recording,
      ${notesShown(asker)} as notes, d.name as disposition_name, ${transferShown(asker)} as transfer,
      r.id as record_id, r.name as record_name, r.first_name, r.module, r.title, r.city, r.zone, r.country, r.region,
        company.name as company,
      said.at as said_at, said.words as said, said.kind as said_kind, ${alsoOf(asker)} as also_of
    from ${call} c
    join ${line} l on l.id = c.line_id
    join ${activity} own on own.id = c.activity_id
    left join ${activityContent} t on t.activity_id = c.activity_id
    left join ${disposition} d on d.id = c.disposition_id
    left join ${record} r on r.id = c.record_id and ${seesRecord(asker, 'r')}
    ${joinCompany(asker)}
    left join lateral (
      select (extract(epoch from s.at) * 1000)::float8 as at, w.words, a.kind
      from ${activityOnRecord} s join ${activity} a on a.id = s.activity_id join ${activityContent} w on w.activity_id = a.id
      left join ${message} sent on sent.id = a.message_id
      where s.record_id = r.id and s.along_line_id is null and a.id <> c.activity_id and w.words is not null and ${isKind(sql`a.kind`, WRITTEN)} and ${mayRead(asker)}
        and (sent.state is null or sent.state not in ('taken-back', 'held', 'failed', 'undelivered', 'waiting'))
      order by s.at desc limit 1) said on true
    where c.put_away_at is null and c.made_at > ${at(new Date(now.getTime() - DAY_MS))}
      and (c.disposed_at is null or c.disposed_at > ${at(new Date(now.getTime() - STAYS_MS))})
      and (c.colleague_id = ${asker.id}::uuid or exists (select 1 from ${callTransfer} h where h.call_id = c.id
        and h.to_id = ${asker.id}::uuid and h.ended_at is null)
          or (c.colleague_id is null and c.direction = 'in' and c.ended_at is null and l.active
              and (c.rings_first is null or c.rings_first = ${asker.id}::uuid or c.rings_first_until <= ${at(now)})
              and not exists (select 1 from ${callDeclined} no where no.call_id = c.id and no.colleague_id = ${asker.id}::uuid)
              and ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}))
    order by c.made_at desc limit 20`)
  return rows.map(row => detailOf(asker, row, now))
}

/** My calls, with what time it is here: clocks of browsers differ. */
export async function myShelf(asker: SignedIn, now: Date): Promise<CallShelf> {
  return { calls: await myCalls(asker, now), now: now.getTime() }
}

/** To whom a call `c` is being handed, as JSON; null while it is not. */
const transferShown = (asker: SignedIn): SQL => sql`(
  select json_build_object('id', h.id, 'way', h.way, 'state', h.state, 'toMe', h.to_id = ${asker.id}::uuid,
    'from', json_build_object('id', f.id, 'firstName', f.first_name), 'to', json_build_object('id', g.id, 'firstName', g.first_name))
  from ${callTransfer} h join ${colleague} f on f.id = h.from_id join ${colleague} g on g.id = h.to_id where h.call_id = c.id
    and h.ended_at is null)`

/** Who else has the number of a call `c` that came in from the record `r`, of those that may be seen, as JSON. */
const alsoOf = (asker: SignedIn): SQL => sql`
  case when c.direction = 'in' then (select json_agg(json_build_object('id', other.id, 'name', other.name) order by other.name) from (
    select distinct x.id, x.name from ${phone} p join ${record} x on x.id = p.record_id and ${seesRecord(asker, 'x')}
    where p.e164 = c.remote and x.id is distinct from r.id limit 5) other) end`

/** What was noted in a call `c` with the content `t`, mine apart from that of others. */
const notesShown = (asker: SignedIn): SQL => sql`(
  select json_build_object(
    'mine', coalesce(max(n.words) filter (where n.by = ${asker.id}), ''),
    'others', coalesce(json_agg(json_build_object('firstName', w.first_name, 'words', n.words))
      filter (where n.by <> ${asker.id} and n.words <> ''), '[]'::json))
  from jsonb_to_recordset(coalesce(t.data -> 'notes', case when t.words is null then '[]'::jsonb
    else jsonb_build_array(jsonb_build_object('by', c.colleague_id, 'words', t.words)) end)) as n(by text, words text)
  left join ${colleague} w on w.id = n.by::uuid)`

function detailOf(asker: SignedIn, row: Row, now: Date): CallDetail {
  const stored = storedOf(row.call)
  const place = row.record_id ? { zone: row.zone, country: row.country, region: row.region } : { zone: null, country: null, region: null }
  return {
    id: stored.id,
    activityId: stored.activityId,
    direction: stored.direction,
    remote: stored.remote,
    line: { id: stored.lineId, name: row.line_name, ringSound: row.ring_sound },
    record: row.record_id
      ? {
          id: row.record_id,
          name: row.record_name,
          firstName: row.first_name ?? row.record_name,
          module: row.module,
          title: row.title,
          company: row.company,
          city: row.city,
        }
      : null,
    alsoOf: row.also_of ?? [],
    facts: factsOf(stored),
    mine: stored.colleagueId === asker.id,
    roundId: row.round_id,
    recording: row.recording,
    notes: row.notes.mine,
    othersNotes: row.notes.others,
    disposition: row.disposition_name ? { name: row.disposition_name, at: stored.disposedAt!.getTime() } : null,
    rating: stored.rating,
    transfer: row.transfer,
    spoken: stored.spoken?.name ?? null,
    zones: clockRules(zonesOf(place, stored.remote), now),
    lastSaid: row.said ? { at: row.said_at!, words: row.said, ours: row.said_kind === null || sideOf(row.said_kind) !== 'theirs' } : null,
  }
}
