import { sql, type SQL } from 'drizzle-orm'
import type { MessageKind } from '~~/core/message/kinds'
import { CONTACT, type ActivityKind } from '~~/core/timeline/kinds'
import type { RhythmDay } from '~~/core/timeline/rhythm'
import type { TimelineCall } from '~~/shared/calling'
import type { PictureFacts } from '~~/shared/pictures'
import type { Asker } from '~~/shared/permissions'
import type { MessageColumn, MessagesQuery } from '~~/shared/schemas/timeline'
import {
  MESSAGES_A_PAGE,
  type AnyMessage,
  type MessageByKind,
  type MessagePage,
  type TimelineEntry,
  type TimelineMessage,
  type TimelinePage,
} from '~~/shared/timeline'
import { factsOf, storedOf } from '../calling/stored'
import { ask, read, tx } from '../db/door'
import { planned } from '../db/prepared'
import { at, milliseconds, uuidArray } from '../db/instants'
import { recordingShown } from '../calling/recording-shown'
import {
  activity,
  activityContent,
  activityOnRecord,
  call,
  callEffect,
  callTransfer,
  colleague,
  consentProposal,
  conversation,
  conversationEvent,
  disposition,
  line,
  message,
  picture,
  record,
  template,
  textMessage,
  requestSettled,
} from '../db/schema'
import { notFound } from '../http/problem'
import { seesRecord } from '../reading/visible'
import { isKind } from '../reading/kinds'
import { mayRead } from '../reading/entries'

export const PAGE = 50
const A_FEW = 5

/** Everything a slip shows of an entry `a`. */
export const SLIP = sql`
  a.id, ${milliseconds(sql`a.at`)} as at, a.kind, a.data, t.words, t.data as content,
  c.id as colleague_id, c.first_name as colleague_first, c.name as colleague_name,
  m.id as message_id, m.state, m.code, m.direction, m.origin, m.author_id, m.kind as message_kind, x.units, x.parts,
    m.cost_micros::float8 as cost_micros, m.currency,
  m.conversation_id, m.name as message_name, m.ref, m.wall_time, m.wall_zone, m.template_version, tp.name as template_name,
  case when ${isKind(sql`a.kind`, CONTACT.call)} then (
    select json_build_object('call', to_jsonb(k), 'disposition', case
      when di.id is not null then json_build_object('name', di.name, 'colour', di.colour) end,
      'spoken', k.spoken, 'line', (select own.name from ${line} own where own.id = k.line_id),
      'transfers', (select coalesce(json_agg(json_build_object('from', f.first_name, 'to', g.first_name, 'at',
        ${milliseconds(sql`h.ended_at`)}) order by h.ended_at), '[]')
        from ${callTransfer} h join ${colleague} f on f.id = h.from_id join ${colleague} g on g.id = h.to_id where h.call_id = k.id
          and h.state = 'transferred'), 'recording', ${recordingShown(sql`k.id`)}, 'effects', (
      select coalesce(json_agg(json_build_object('position', e.position, 'words', e.words, 'state', e.state, 'reason', e.reason)
        order by e.position), '[]')
      from ${callEffect} e where e.call_id = k.id and e.attempt = (select max(attempt) from ${callEffect} x where x.call_id = k.id)))
    from ${call} k left join ${disposition} di on di.id = k.disposition_id where k.activity_id = a.id) end as called,
  coalesce(m.pictures, 0) as picture_count, case when m.pictures > 0 then (select json_agg(json_build_object('id', pi.id, 'width', pi.width, 'height', pi.height, 'size', pi.size)
    order by pi.id) from ${picture} pi where pi.message_id = m.id) end as pictures,
  ${milliseconds(sql`m.made_at`)} as made_at, ${milliseconds(sql`m.leaves_at`)} as leaves_at, ${milliseconds(sql`m.handed_at`)} as handed_at,
  ${milliseconds(sql`m.accepted_at`)} as accepted_at, ${milliseconds(sql`m.settled_at`)} as settled_at,
  v.remote, l.name as line_name, l.e164 as line_e164,
  case when m.meant_line_id <> v.line_id then (select w.name from ${line} w where w.id = m.meant_line_id) end as meant_line,
  p.id as proposal_id, p.opted_out as proposal_decision,
  a.kind = 'text-in' and exists (select 1 from ${requestSettled} asked where asked.activity_id = a.id) as request_settled`

export const SLIP_JOINS = sql`
  left join ${activityContent} t on t.activity_id = a.id
  left join ${colleague} c on c.id = a.colleague_id
  left join ${message} m on m.id = a.message_id
  left join ${textMessage} x on x.message_id = m.id
  left join ${conversation} v on v.id = m.conversation_id
  left join ${line} l on l.id = v.line_id
  left join ${template} tp on tp.id = m.template_id
  left join ${consentProposal} p on p.activity_id = a.id and ${isKind(sql`a.kind`, CONTACT.theirs)}`

const NEWEST_FIRST = sql`s.at desc, s.activity_id desc`
const OLDEST_FIRST = sql`s.at, s.activity_id`

const SOMEBODY_ELSE = sql`json_build_object('id', null, 'name', 'somebody of another team')`

/** One of the records that an entry of `s` is with, of those that may be seen, as JSON. */
const whomItIsWith = (asker: Asker): SQL => sql`
  select json_build_object('id', w.id, 'name', w.name) from ${activityOnRecord} own
    join ${record} w on w.id = own.record_id and ${seesRecord(asker, 'w')}
  where own.activity_id = s.activity_id and own.via_record_id is null and own.along_line_id is null order by w.name limit 1`

/** A record's entries, each one row. Exported for the bench, which runs the same statement bare. */
export function timelineQuery(asker: Asker, recordId: string, which: SQL, limit: number, order = NEWEST_FIRST): SQL {
  return sql`
    select ${SLIP}, s.by_hand, via.id as via_id, via.name as via_name, case when s.along_line_id is not null then coalesce((${whomItIsWith(asker)}),
      ${SOMEBODY_ELSE}) end as meant_for
    from ${activityOnRecord} s
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    join ${activity} a on a.id = s.activity_id
    left join ${record} via on via.id = s.via_record_id
    ${SLIP_JOINS}
    where s.record_id = ${recordId}::uuid and ${mayRead(asker)} and ${which}
    order by ${order}
    limit ${limit}`
}

/** What was newest between a line and a number, calls too, newest first. Whoever calls has checked that the line is theirs. */
export async function readConversationEntries(conversationId: string, limit = 12): Promise<TimelineEntry[]> {
  const { rows } = await read(database => database.execute<EntryRow>(sql`
    select ${SLIP}, false as by_hand, null as via_id, null as via_name, null as meant_for
    from (
      (select activity_id, made_at, id from ${message} where conversation_id = ${conversationId}::uuid
        order by made_at desc, id desc limit ${limit})
      union all
      (select k.activity_id, k.made_at, k.id from ${conversation} w join ${call} k on k.remote = w.remote and k.line_id = w.line_id
        where w.id = ${conversationId}::uuid order by k.made_at desc, k.id desc limit ${limit})
      union all
      (select activity_id, at, activity_id from ${conversationEvent} where conversation_id = ${conversationId}::uuid
        order by at desc, activity_id desc limit ${limit})
    ) own join ${activity} a on a.id = own.activity_id
    ${SLIP_JOINS}
    order by own.made_at desc, own.id desc limit ${limit}`))
  return rows.map(entryOf)
}

/** Where a page ends: the entry's time and id, which no later entry can move. */
export interface TimelineCursor { at: number, id: string }

/** Comes after every id. */
const LAST_ID = 'ffffffff-ffff-ffff-ffff-ffffffffffff'

/**
 * One page of a record's timeline, newest first.
 *
 * @param before the last entry of the page above; the newest page if left out
 * @param which a condition on its rows `s` and entries `a`, where it is narrowed
 * @throws Problem 404 if the record may not be seen
 */
export async function readTimeline(asker: Asker, recordId: string, before?: TimelineCursor, which?: SQL): Promise<TimelinePage> {
  const under = before ? sql`(s.at, s.activity_id) < ${place(before)}` : sql`true`
  return tx(async () => {
    const rows = await readPage(asker, recordId, under, which, PAGE + 1)
    if (rows.length === 0 && !before) await mustSee(asker, recordId)
    return { entries: rows.slice(0, PAGE).map(entryOf), more: rows.length > PAGE, newer: before !== undefined }
  })
}

/** The page above another one, for who has come into the middle of a timeline. */
export async function readNewer(asker: Asker, recordId: string, after: TimelineCursor, which?: SQL, limit = PAGE): Promise<TimelinePage> {
  const rows = await readPage(asker, recordId, sql`(s.at, s.activity_id) > ${place(after)}`, which, limit + 1, OLDEST_FIRST)
  return { entries: rows.slice(0, limit).map(entryOf).reverse(), more: true, newer: rows.length > limit }
}

/** What people narrow is planned with its values; the whole is one statement for all, which is planned once. */
async function readPage(asker: Asker, recordId: string, where: SQL, which: SQL | undefined, limit: number, order = NEWEST_FIRST) {
  const asked = timelineQuery(asker, recordId, which ? sql`${where} and ${which}` : where, limit, order)
  return (await ask<EntryRow>(which ? planned(asked) : asked)).rows
}

/**
 * The page on which an entry stands, with a few that came after it; the newest page if it is not there, or
 * not for this asker.
 */
export async function readAround(asker: Asker, recordId: string, entryId: string): Promise<TimelinePage> {
  return tx(async () => {
    const [entry] = await readEntries(asker, recordId, [entryId])
    if (!entry) return readTimeline(asker, recordId)
    const newer = await readNewer(asker, recordId, entry, undefined, A_FEW)
    const older = await readTimeline(asker, recordId, entry)
    return { entries: [...newer.entries, entry, ...older.entries], more: older.more, newer: newer.newer }
  })
}

/** What stands at an instant and before it, with a few that came after. */
export async function readAt(asker: Asker, recordId: string, instant: number, which?: SQL): Promise<TimelinePage> {
  const there = { at: instant, id: LAST_ID }
  return tx(async () => {
    const newer = await readNewer(asker, recordId, there, which, A_FEW)
    const older = await readTimeline(asker, recordId, there, which)
    return { entries: [...newer.entries, ...older.entries], more: older.more, newer: newer.newer }
  })
}

const place = ({ at: instant, id }: TimelineCursor) => sql`(${at(instant)}, ${id}::uuid)`

/** Single entries, as a browser asks for them after a notice. Those that may not be seen are left out. */
export async function readEntries(asker: Asker, recordId: string, ids: string[], which?: SQL): Promise<TimelineEntry[]> {
  return (await readPage(asker, recordId, sql`s.activity_id = any(${uuidArray(ids)})`, which, ids.length)).map(entryOf)
}

/** A text that was taken back before it left is no contact. */
const NEVER_LEFT = sql`exists (select 1 from ${message} back where back.activity_id = a.id and back.state = 'taken-back')`

/**
 * Contact by day over a year, for the rhythm. Days are counted in one offset, the reader's of today.
 *
 * @throws Problem 404 if the record may not be seen
 */
export async function readRhythm(asker: Asker, recordId: string, from: Date, offsetMinutes: number): Promise<RhythmDay[]> {
  const { rows } = await read(database => database.execute<RhythmDay & Record<string, unknown>>(sql`
    select floor((extract(epoch from s.at) / 60 + ${offsetMinutes}::float8) / 1440)::int as day,
      count(*) filter (where ${isKind(sql`a.kind`, CONTACT.ours)} and not ${NEVER_LEFT})::int as ours,
      count(*) filter (where ${isKind(sql`a.kind`, CONTACT.theirs)})::int as theirs,
      count(*) filter (where ${isKind(sql`a.kind`, CONTACT.call)})::int as calls
    from ${activityOnRecord} s
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    join ${activity} a on a.id = s.activity_id and ${isKind(sql`a.kind`, Object.values(CONTACT).flat())}
    where s.record_id = ${recordId}::uuid and s.at >= ${at(from)} and ${mayRead(asker)}
    group by 1 order by 1`))
  if (rows.length === 0) await mustSee(asker, recordId)
  return rows
}

const SORTED_BY: Record<MessageColumn, SQL> = {
  at: sql`s.at`,
  way: sql`a.kind`,
  who: sql`c.first_name`,
  words: sql`t.words`,
  name: sql`coalesce(m.name, tp.name)`,
  state: sql`m.state`,
  number: sql`v.remote`,
  line: sql`l.name`,
  template: sql`tp.name`,
  parts: sql`x.parts`,
  cost: sql`m.cost_micros`,
  ref: sql`m.ref`,
}

/** The texts of a record, one page of them, in an order that somebody chose. */
export async function readMessages(asker: Asker, recordId: string, query: MessagesQuery, which: SQL): Promise<MessagePage> {
  const texts = sql`${isKind(sql`a.kind`, [...CONTACT.ours, ...CONTACT.theirs])} and ${which}`
  const way = sql.raw(query.direction === 'up' ? 'asc' : 'desc')
  const order = sql`${SORTED_BY[query.sort]} ${way} nulls last, ${NEWEST_FIRST}`
  const { rows } = await ask<EntryRow>(planned(sql`${timelineQuery(asker, recordId, texts, MESSAGES_A_PAGE, order)}
    offset ${(query.page - 1) * MESSAGES_A_PAGE}`))
  const { rows: [counted] } = await ask<{ count: number }>(planned(sql`
    select count(*)::int as count from ${activityOnRecord} s
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    join ${activity} a on a.id = s.activity_id
    where s.record_id = ${recordId}::uuid and ${mayRead(asker)} and ${texts}`))
  if (counted!.count === 0) await mustSee(asker, recordId)
  return { entries: rows.map(entryOf), count: counted!.count }
}

async function mustSee(asker: Asker, recordId: string): Promise<void> {
  const { rows } = await read(database => database.execute(sql`select 1 from ${record} r where r.id = ${recordId}::uuid
    and ${seesRecord(asker, 'r')}`))
  if (rows.length === 0) throw notFound('record')
}

export type EntryRow = Record<string, unknown> & {
  id: string
  at: number
  kind: ActivityKind
  data: Record<string, unknown>
  words: string | null
  content: Record<string, unknown> | null
  colleague_id: string | null
  colleague_first: string
  colleague_name: string
  via_id: string | null
  via_name: string
  by_hand: boolean
  meant_for: TimelineEntry['meantFor']
  message_id: string | null
  message_kind: MessageKind
  state: NonNullable<TimelineEntry['message']>['state']
  code: string | null
  direction: 'out' | 'in'
  origin: NonNullable<TimelineEntry['message']>['origin']
  author_id: string | null
  units: number
  parts: number
  cost_micros: number | null
  currency: string | null
  conversation_id: string
  ref: string | null
  wall_time: string | null
  wall_zone: string | null
  template_version: number | null
  template_name: string | null
  picture_count: number
  pictures: PictureFacts[] | null
  called: { call: Record<string, unknown> } & Pick<TimelineCall, 'disposition' | 'transfers' | 'spoken' | 'effects' | 'recording' | 'line'> | null
  message_name: string | null
  made_at: number
  leaves_at: number
  handed_at: number | null
  accepted_at: number | null
  settled_at: number | null
  remote: string
  line_name: string
  line_e164: string
  meant_line: string | null
  proposal_id: string | null
  proposal_decision: 'yes' | 'no' | null
  request_settled: boolean
}

export function entryOf(row: EntryRow): TimelineEntry {
  return {
    id: row.id,
    at: row.at,
    kind: row.kind,
    words: row.words,
    data: { ...row.data, ...row.content },
    colleague: row.colleague_id ? { id: row.colleague_id, firstName: row.colleague_first, name: row.colleague_name } : null,
    via: row.via_id ? { id: row.via_id, name: row.via_name } : null,
    byHand: row.by_hand,
    meantFor: row.meant_for,
    message: row.message_id ? messageOf(row) : null,
    call: row.called ? callOf(row.called) : null,
  }
}

function callOf({ call: row, ...shown }: NonNullable<EntryRow['called']>): TimelineCall {
  const stored = storedOf(row)
  return { id: stored.id, remote: stored.remote, colleagueId: stored.colleagueId, facts: factsOf(stored), rating: stored.rating, ...shown }
}

/** What each kind of message shows beside what is true of any. */
const OF_KIND: { [Kind in MessageKind]: (row: EntryRow) => Omit<MessageByKind[Kind], keyof AnyMessage> } = {
  text: row => ({
    kind: 'text',
    line: { name: row.line_name, e164: row.line_e164 },
    meantLine: row.meant_line,
    remote: row.remote,
    units: row.units,
    parts: row.parts,
  }),
}

const messageOf = (row: EntryRow): TimelineMessage => ({
  id: row.message_id!,
  conversationId: row.conversation_id,
  direction: row.direction,
  state: row.state,
  code: row.code,
  origin: row.origin,
  authorId: row.author_id,
  template: row.template_name ? { name: row.template_name, version: row.template_version! } : null,
  pictures: row.pictures ?? [],
  picturesToCome: row.picture_count - (row.pictures?.length ?? 0),
  ref: row.ref,
  later: row.wall_time ? { wallTime: row.wall_time, zone: row.wall_zone! } : null,
  costMicros: row.cost_micros,
  currency: row.currency,
  name: row.message_name,
  madeAt: row.made_at,
  leavesAt: row.leaves_at,
  handedAt: row.handed_at,
  acceptedAt: row.accepted_at,
  settledAt: row.settled_at,
  requestSettled: row.request_settled,
  proposal: row.proposal_id ? { id: row.proposal_id, decision: row.proposal_decision } : null,
  ...OF_KIND[row.message_kind](row),
})
