import { sql, type Placeholder, type SQL, type SQLWrapper } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { WallMoment } from '~~/core/hours/schedule'
import { messageEntry } from '~~/core/timeline/kinds'
import { measureText } from '~~/core/text/measure'
import type { MessageOrigin } from '../db/schema/texting'
import { conversation, message, picture, record, textMessage } from '../db/schema'
import { statement } from '../db/statement'
import { happens, isSaid, isShown } from '../activity/in-sql'
import { jobMade } from '../jobs/in-sql'
import { HAND_OVER } from '../jobs/kinds'
import { wakeOutbox } from '../jobs/wake'
import { placesOf } from '../activity/places'
import { covering, holding, IS_COVERED } from '../money/in-sql'
import { holdersOf } from '../activity/with-whom'
import { announceShown, type ShownRow } from './announce'
import type { TextLine } from './lines'
import { freshRef } from './refs'

export interface Queued { id: string, activityId: string, leavesAt: number }

export interface Outgoing {
  id: string
  line: TextLine
  to: string
  /** The record that holds the number. Where it is decides on the hours. */
  recordId: string | null
  /** The record from which it was written, where that is another one, such as a deal: it shows there and on its company in any case. */
  writtenOn: string | null
  text: string
  authorId: string | null
  origin: MessageOrigin
  templateId: string | null
  templateVersion: number | null
  nightAllowed: boolean
  confirmsOptOut: boolean
  leavesAt: Date
  /** The moment as it was meant, of one that is to leave later. */
  later: WallMoment | null
  ref: string | null
  pictureIds: string[]
  /** Up to when its author has seen what colleagues have answered; null where nobody asks. */
  seenUntil: number | null
}

/**
 * Writes everything about a text in one statement: the conversation, where nothing waits any more once a
 * person has written; the entry with its words, on the record it is for, on its company and what it is on, and besides on
 * others with that number; the message; and the job that hands it over.
 *
 * Of two colleagues who answer at once the second writes nothing, unless they have seen what the first has written; and of
 * two who spend the last money the second writes nothing. What it will cost is held for it from then on.
 *
 * @returns null if a colleague has answered meanwhile, or what is there does not cover it
 * @throws the database's own error (isDuplicate `message_pkey`) if there is a text with this id
 */
export const queueText = (out: Outgoing, now: Date): Promise<Queued | null> => queueBy(storeText, valuesOf(out, now), out)

/** Writes a text, as `queueText` does. */
export type Queue = typeof queueText

type Value<Values> = (name: keyof Values & string) => Placeholder

/**
 * The same for texts that are claimed in the same statement: it is written only where the claim has a row, and the claim is made
 * only where the text is written.
 *
 * @param claim steps of the statement, the last of them `claimed`, which changes something only where `asked` has a row
 * @returns gives for the values of a claim what queues by it: null too where the claim has no row
 */
export function queueClaimed<Claim extends Record<string, unknown>>(
  claim: (value: Value<Values & Claim>) => SQL,
): (values: Claim) => Queue {
  const store = statement<Values & Claim, ShownRow>(value => storing(value, claim(value)))
  return claimed => (out, now) => queueBy(values => store({ ...values, ...claimed }), valuesOf(out, now), out)
}

async function queueBy(store: (values: Values) => Promise<{ rows: ShownRow[] }>, values: Values, out: Outgoing): Promise<Queued | null> {
  const { rows } = await store(values)
  if (!rows[0]?.conversation_id) return null
  announceShown(rows)
  wakeOutbox(out.leavesAt)
  return { id: out.id, activityId: values.activityId, leavesAt: out.leavesAt.getTime() }
}

type Values = ReturnType<typeof valuesOf>

function valuesOf({ line, leavesAt, later, ref, seenUntil, ...out }: Outgoing, now: Date) {
  const { encoding, shift, units, parts } = measureText(out.text, line.languages)
  const pictures = out.pictureIds.length
  return {
    ...out,
    encoding,
    shift,
    units,
    // with pictures it is one message, whatever its length
    parts: pictures > 0 ? 1 : parts,
    pictures,
    pictureIds: JSON.stringify(out.pictureIds),
    lineId: line.id,
    lineColleague: line.colleagueId,
    lineTeam: line.teamId,
    privateLine: line.private ? line.id : null,
    // what goes to many settles nothing that is owed to one, and moves no conversation up
    byHand: out.authorId !== null && out.origin !== 'bulk',
    bulk: out.origin === 'bulk',
    activityId: uuid(),
    conversationId: uuid(),
    jobId: uuid(),
    jobKey: `${HAND_OVER} ${out.id}`,
    payload: JSON.stringify({ messageId: out.id }),
    lane: `${line.e164} ${out.to}`,
    now: now.toISOString(),
    leavesAt: leavesAt.toISOString(),
    // what leaves later stands behind what is written to the same person until then
    orderAt: (later ? leavesAt : now).toISOString(),
    wallTime: later?.wallTime ?? null,
    wallZone: later?.zone ?? null,
    ref: ref ?? freshRef(),
    seenUntil: seenUntil === null ? null : new Date(seenUntil).toISOString(),
  }
}

/** What colleagues have answered over a line since an instant; what was taken back nobody has heard. */
export const answeredSince = (
  { lineId, remote, authorId, seenUntil }: Record<'lineId' | 'remote' | 'authorId' | 'seenUntil', SQLWrapper>,
): SQL => sql`
  select a.id, a.author_id, a.activity_id, a.made_at from ${conversation} av join ${message} a on a.conversation_id = av.id
  where av.line_id = ${lineId}::uuid and av.remote = ${remote} and a.direction = 'out' and a.author_id <> ${authorId}::uuid
    and a.state <> 'taken-back' and a.made_at > ${seenUntil}::timestamptz`

const OUT = sql.raw(`'${messageEntry('text', 'out')}'`)

function storing(value: Value<Values>, claim: SQL | null): SQL {
  const [now, activityId, byHand, bulk, authorId] = [
    sql`${value('now')}::timestamptz`,
    sql`${value('activityId')}::uuid`,
    sql`${value('byHand')}::boolean`,
    sql`${value('bulk')}::boolean`,
    sql`${value('authorId')}::uuid`,
  ]
  return sql`
    with ${covering({
      lineId: sql`${value('lineId')}::uuid`,
      pictures: sql`${value('pictures')}::int`,
      parts: sql`${value('parts')}::int`,
      // what the law wants answered is answered
      always: sql`${authorId} is null`,
    })}, asked as (
      select 1 where ${IS_COVERED} and (${value('seenUntil')}::timestamptz is null or not exists (${answeredSince({
        lineId: value('lineId'), remote: value('to'), authorId: value('authorId'), seenUntil: value('seenUntil'),
      })}))
    ), ${claim ? sql`${claim},` : sql``} before as (
      select id, waits_since from ${conversation} where line_id = ${value('lineId')}::uuid and remote = ${value('to')}
    ), talk as (
      insert into ${conversation} as v (id, kind, line_id, remote, last_at, went_out, bulk_only)
        select ${value('conversationId')}::uuid, 'text', ${value('lineId')}::uuid, ${value('to')}, ${now}, true, ${bulk} from ${claim ? sql`claimed` : sql`asked`}
      on conflict (line_id, remote) do update set last_at = case when ${bulk} then v.last_at else excluded.last_at end, went_out = true,
        bulk_only = v.bulk_only and ${bulk},
        waits_since = case when not ${byHand} then v.waits_since end, waits_for = case when not ${byHand} then v.waits_for end,
        returns_at = case when not ${byHand} then v.returns_at end
      returning id
    ), happened as (
      ${happens(sql`select ${activityId}, ${now}, ${OUT}, ${authorId}, ${value('id')}::uuid, '{}'::jsonb from talk`)}
    ), said as (
      ${isSaid(sql`select id, ${value('text')}, null::jsonb from happened`)}
    ), holders as (
      ${holdersOf({ lineId: value('lineId'), remote: value('to'), recordId: value('recordId') })}
    ), places as (
      -- a bulk text shows once on a company, and not once for each of its people
      select * from (${placesOf(sql`holders`)}) p where not ${bulk} or p.via is null
      union all select place.id, ${value('recordId')}::uuid, null from ${record} own
        cross join unnest(array[own.id, own.company_id]) place (id) where own.id = ${value('writtenOn')}::uuid and place.id is not null
    ), shown as (
      ${isShown(sql`select record_id, ${now}, happened.id, via, ${value('privateLine')}::uuid, along
        from places cross join happened`)}
    ), told as (
      insert into ${message} (id, kind, conversation_id, activity_id, direction, origin, author_id, record_id, template_id,
        template_version, state,
        night_allowed, answers_since, pictures, made_at, leaves_at, wall_time, wall_zone, ref)
      select ${value('id')}::uuid, 'text', talk.id, (select id from happened), 'out', ${value('origin')}, ${authorId},
        ${value('recordId')}::uuid,
        ${value('templateId')}::uuid, ${value('templateVersion')}::int, 'waiting', ${value('nightAllowed')}::boolean,
        case when ${byHand} then (select waits_since from before) end, ${value('pictures')}::int, ${now}, ${value('leavesAt')}::timestamptz,
        ${value('wallTime')}, ${value('wallZone')}, ${value('ref')}
      from talk
      returning id, activity_id, conversation_id
    ), measured as (
      insert into ${textMessage} (message_id, encoding, shift, units, parts, confirms_opt_out)
      select id, ${value('encoding')}, ${value('shift')}, ${value('units')}::int, ${value('parts')}::int,
        ${value('confirmsOptOut')}::boolean from told
    ), ${holding({
      messageId: sql`${value('id')}::uuid`, colleagueId: authorId, lineId: sql`${value('lineId')}::uuid`, at: now,
    })}, pictured as (
      update ${picture} set message_id = ${value('id')}::uuid
      where ${value('pictures')}::int > 0 and exists (select 1 from told) and message_id is null and colleague_id = ${authorId}
        and id in (select x::uuid from jsonb_array_elements_text(${value('pictureIds')}::jsonb) x)
    ), later as (
      ${jobMade(sql`
        select ${value('jobId')}::uuid, ${HAND_OVER}::text, ${value('jobKey')}, ${value('payload')}::jsonb, ${value('lane')},
          ${value('orderAt')}::timestamptz, ${value('leavesAt')}::timestamptz, ${now}, ${value('wallTime')}::text is not null from told`)}
    )
    select (select conversation_id from told) as conversation_id, ${value('lineColleague')}::uuid as line_colleague,
      ${value('lineTeam')}::uuid as line_team,
      (select json_agg(json_build_object('recordId', r.id, 'activityId', ${activityId}, 'ownerId', r.owner_id, 'teamId', r.team_id))
        from shown join ${record} r on r.id = shown.record_id) as shown`
}

const storeText = statement<Values, ShownRow>(value => storing(value, null))
