import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import { activityOnRecord, call, conversation, conversationEvent, line, message, record } from '../db/schema'
import { seesRecord, visible } from './visible'

/**
 * Who may read what stands on timelines, in one place.
 *
 * A text or a call belongs to the records that it was with (their rows in `activity_on_record` have neither a `via` nor
 * an `along`), and is read by those who may see one of these or who answer its line; what went over a private line
 * only by those who answer it. Where it shows besides changes nothing about that: neither on a company or a deal,
 * through a link (`via`), nor on another record with the same number (`along`). So nobody gets to read anything by
 * writing down a number or making a link. Notes and changes belong to the record they were made on.
 *
 * @param s alias of `activity_on_record`; that its record may be seen is for the caller to ask
 */
export function mayRead(asker: Asker, s = 's'): SQL {
  const [id, via, along, privately] = ['activity_id', 'via_record_id', 'along_line_id', 'private_line_id'].map(column =>
    sql.raw(`${s}.${column}`),
  )
  return sql`(
    (${privately} is null or ${privately} in (${linesAnswered(asker)}))
    and (${via} is null or exists (select 1 from ${record} through where through.id = ${via} and ${seesRecord(asker, 'through')}))
    and (${along} is null or ${along} in (${linesAnswered(asker)}) or ${seesWhomItWasWith(asker, id!)}))`
}

/**
 * The same for an entry by its id, wherever it shows.
 *
 * @param activityId an expression of the query around. It is taken in by a query of its own, so that no name in here is
 * mistaken for one of that query
 */
export const mayReadEntry = (asker: Asker, activityId: SQL): SQL => sql`exists (
  select 1 from (select ${activityId} as id) asked_for where exists (
    select 1 from ${activityOnRecord} shown join ${record} r on r.id = shown.record_id and ${seesRecord(asker, 'r')}
    where shown.activity_id = asked_for.id and ${mayRead(asker, 'shown')})
  or exists (select 1 from ${message} m join ${conversation} v on v.id = m.conversation_id where m.activity_id = asked_for.id
    and v.line_id in (${linesAnswered(asker)}))
  or exists (select 1 from ${conversationEvent} e join ${conversation} v on v.id = e.conversation_id
    where e.activity_id = asked_for.id and v.line_id in (${linesAnswered(asker)}))
  or exists (select 1 from ${call} k where k.activity_id = asked_for.id and k.line_id in (${linesAnswered(asker)})))`

const seesWhomItWasWith = (asker: Asker, activityId: SQL): SQL => sql`exists (
  select 1 from ${activityOnRecord} own join ${record} w on w.id = own.record_id and ${seesRecord(asker, 'w')}
  where own.activity_id = ${activityId} and own.via_record_id is null and own.along_line_id is null)`

const linesAnswered = (asker: Asker): SQL => sql`select pl.id from ${line} pl
  where ${visible(asker, 'line.answer', { owner: sql`pl.colleague_id`, team: sql`pl.team_id` })}`
