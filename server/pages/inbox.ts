import { sql, type SQL } from 'drizzle-orm'
import type { OwedFor } from '~~/core/owed/owed'
import type { InboxFilter, InboxItem, InboxPage, InboxPlace } from '~~/shared/inbox'
import type { Module } from '~~/shared/modules'
import type { InboxQuery } from '~~/shared/schemas/inbox'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { planned } from '../db/prepared'
import { activityContent, bulkPerson, bulkText, call, colleague, conversation, conversationSeen, line, message, phone, record, recording } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { joinContact } from '../reading/contact'
import { seesRecord, visible } from '../reading/visible'
import { wordsMatch } from '../reading/words'
import { holdsWord } from '../records/found-by'

const PAGE = 40
/** How many of a line's conversations one page looks through for those that no index tells apart; the next page goes on from there. */
const LOOKED_THROUGH = 500
/** As many as anybody can look over. */
const MOST_OWED = 200
/** A word that thousands of texts have tells little. */
const MOST_OF_A_WORD = sql.raw('2000')

/**
 * A page of the conversations on the lines that I answer: first those that owe an answer, by me, by nobody yet, by a colleague,
 * each the longest waiting first; then all others by their newest text. Each line is walked by its own index, and only as far
 * as the page goes.
 */
export async function readInbox(asker: SignedIn, query: InboxQuery): Promise<InboxPage> {
  const { beforeAt, beforeId } = query
  const isFirst = beforeAt === null || beforeId === null
  const { indexed, lookedAt } = conditionsOf(asker, query)
  const under = isFirst ? sql`true` : sql`(v.last_at, v.id) < (${at(new Date(beforeAt))}, ${beforeId}::uuid)`
  const settled = sql`select v.* from ${conversation} v where v.line_id = mine.id and ${under} and v.waits_since is null
      ${query.show.split(',').includes('sent') ? sql`` : sql`and (v.came_in or not v.bulk_only)`} and ${all(indexed)}
    order by v.last_at desc, v.id desc`
  const others = sql`(select v.* from mine cross join lateral (
    select v.* from (${settled} ${lookedAt.length > 0 ? sql`limit ${sql.raw(String(LOOKED_THROUGH))}` : sql``}) v
    where ${all(lookedAt)} order by v.last_at desc, v.id desc limit ${sql.raw(String(PAGE + 1))}
  ) v order by v.last_at desc, v.id desc limit ${sql.raw(String(PAGE + 1))})`
  const owed = sql`(select v.* from ${conversation} v join mine on mine.id = v.line_id
    where v.waits_since is not null and ${all([...indexed, ...lookedAt])}
    order by ${whose(asker)}, v.waits_since, v.id limit ${sql.raw(String(MOST_OWED))})`
  // in one statement, so that one that begins to wait meanwhile is in one of both
  const found = await read(asker, isFirst ? sql`${owed} union all ${others}` : others, isUsual(query))
  const settledOnes = found.filter(({ waitsSince }) => waitsSince === null)
  const end = lookedAt.length > 0 ? await endOfLook(asker, settled, isUsual(query)) : null
  const shown = settledOnes.filter(item => !end || isAbove(item, end)).slice(0, PAGE)
  const last = settledOnes.length > PAGE && shown.length === PAGE ? shown.at(-1)! : null
  return {
    owed: found.filter(({ waitsSince }) => waitsSince !== null),
    others: shown,
    next: last ? { at: last.lastAt, id: last.conversationId } : end,
  }
}

/** The place to which every line was looked through: that of the line on which it ends first; null where all came to their end. */
async function endOfLook(asker: SignedIn, settled: SQL, usual: boolean): Promise<InboxPlace | null> {
  const statement = sql`
    with ${linesOf(asker)} select ${milliseconds(sql`v.last_at`)} as at, v.id from mine cross join lateral (
      ${settled} offset ${sql.raw(String(LOOKED_THROUGH - 1))} limit 1
    ) v order by v.last_at desc, v.id desc limit 1`
  const { rows: [end] } = await ask<{ at: number, id: string } & Record<string, unknown>>(usual ? statement : planned(statement))
  return end ?? null
}

const isAbove = ({ lastAt, conversationId }: InboxItem, { at, id }: InboxPlace): boolean =>
  lastAt > at || (lastAt === at && conversationId >= id)

/** Whether an answer is owed by me: nobody has it, or I have. */
export const owesMe = ({ id }: { id: string }): SQL =>
  sql`(v.waits_since is not null and (v.assignee_id is null or v.assignee_id = ${id}::uuid))`

/** Whose an answer is to give: mine, nobody's yet, a colleague's. */
const whose = ({ id }: { id: string }): SQL => sql`case when v.assignee_id = ${id}::uuid then 0
  when v.assignee_id is not null then 2 when mine.colleague_id = ${id}::uuid then 0 else 1 end`

const CAME_IN = sql`exists (select 1 from ${message} i where i.conversation_id = v.id and i.direction = 'in'`
/** Those with a text of some state, which few texts are in: looked up once by an index of such texts, not conversation by conversation. */
const among = (which: SQL): SQL => sql`v.id = any(array(select m.conversation_id from ${message} m where ${which}))`

/** Up to when I have seen a conversation `v`. */
export const seenUntil = ({ id }: { id: string }): SQL => sql`coalesce(
  (select s.seen_at from ${conversationSeen} s where s.conversation_id = v.id and s.colleague_id = ${id}::uuid),
  (select c.sees_from from ${colleague} c where c.id = ${id}::uuid))`

/** Whether something came in that I have not seen. */
const unseenBy = (asker: { id: string }): SQL => sql`(${CAME_IN} and i.made_at > ${seenUntil(asker)})
  or exists (select 1 from ${call} k where ${MISSED} and k.ended_at > ${seenUntil(asker)}))`

/** A call `k` of the conversation `v` that nobody took. */
const MISSED = sql`k.remote = v.remote and k.line_id = v.line_id and k.direction = 'in' and k.colleague_id is null and k.ended_at is not null`

/** What became of a call `k`, in a word. */
const stateOfCall = sql`case when k.colleague_id is not null then case when k.answered_by = 'person' then 'talked' else 'tried' end
  when exists (select 1 from ${recording} left_there where left_there.call_id = k.id) then 'voicemail' else 'missed' end`

/** Looked up for each conversation that a page comes by; an `exists` in a choice would be worked out for all numbers there are. */
const onRecord = (asker: SignedIn, which: SQL): SQL => sql`coalesce((
  select true from ${phone} p join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')} where p.e164 = v.remote and ${which} limit 1), false)`

/** Those that an index tells apart are found however few they are; the others are looked for among the newest. */
const INDEXED: ReadonlySet<InboxFilter> = new Set<InboxFilter>(['owed', 'sent', 'received', 'scheduled', 'failed', 'put-back'])
const FILTERS: Record<InboxFilter, (asker: SignedIn) => SQL> = {
  'owed': owesMe,
  'unseen': unseenBy,
  'mine': asker => sql`(v.assignee_id = ${asker.id}::uuid or (v.assignee_id is null
    and (mine.colleague_id = ${asker.id}::uuid or ${onRecord(asker, sql`r.owner_id = ${asker.id}::uuid`)})))`,
  'unassigned': () => sql`v.assignee_id is null`,
  'no-record': asker => sql`not ${onRecord(asker, sql`true`)}`,
  'sent': () => sql`not v.came_in`,
  'received': () => sql`not v.went_out`,
  'scheduled': () => among(sql`m.state = 'waiting' and m.wall_time is not null`),
  'failed': () => among(sql`m.state in ('failed', 'held')`),
  'put-back': () => sql`v.returns_at is not null`,
}

interface Conditions { indexed: SQL[], lookedAt: SQL[] }

function conditionsOf(asker: SignedIn, { show, lineId, module, words }: InboxQuery): Conditions {
  const filters = show.split(',').filter(Boolean) as InboxFilter[]
  return {
    indexed: [
      ...filters.filter(filter => INDEXED.has(filter)).map(filter => FILTERS[filter](asker)),
      ...lineId ? [sql`v.line_id = ${lineId}::uuid`] : [],
    ],
    lookedAt: [
      ...filters.filter(filter => !INDEXED.has(filter)).map(filter => FILTERS[filter](asker)),
      ...module ? [onRecord(asker, sql`r.module = ${module}`)] : [],
      ...words ? [sql`(${isWith(asker, words)} or ${saysWords(words)})`] : [],
    ],
  }
}

/** What is asked again and again, and never with other words: it is planned once. What people put together is planned for itself. */
const isUsual = ({ show, module, words }: InboxQuery): boolean => words === '' && !module && !show.includes(',')

const all = (conditions: SQL[]): SQL => sql.join([sql`true`, ...conditions], sql` and `)

/** Whether it is with somebody of that name, or with a number that has those digits. */
function isWith(asker: SignedIn, words: string): SQL {
  const digits = words.replace(/\D/g, '').replace(/^0+/, '')
  return sql`(${onRecord(asker, holdsWord(sql`r.found_by`, words))}${digits.length >= 3 ? sql` or v.remote like ${`%${digits}%`}` : sql``})`
}

/** Whether one of its texts has the words; looked up by the words, not text by text. */
const saysWords = (words: string): SQL => sql`v.id = any(array(
  select m.conversation_id from ${activityContent} t join ${message} m on m.activity_id = t.activity_id
  where ${wordsMatch(words) ?? sql`false`} limit ${MOST_OF_A_WORD}))`

/** The lines that I answer. */
const linesOf = (asker: SignedIn): SQL => sql`mine as (
  select l.id, l.name, l.colleague_id from ${line} l
  where ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
)`

/** The conversations of a statement, each with what the list shows of it: those that wait, the longest waiting first, then the others. */
async function read(asker: SignedIn, chosen: SQL, usual: boolean): Promise<InboxItem[]> {
  const statement = sql`
    with ${linesOf(asker)}, v as (${chosen})
    select v.id, v.remote, ${milliseconds(sql`v.last_at`)} as last_at, ${milliseconds(sql`v.waits_since`)} as waits_since, v.waits_for,
      ${milliseconds(sql`v.returns_at`)} as returns_at, mine.id as line_id, mine.name as line_name,
      h.id as record_id, h.name as record_name, h.module, coalesce(h.holders, 0)::int as holders,
      has.id as assignee_id, has.first_name as assignee_name, newest.kind, newest.words, newest.direction, newest.state, author.first_name as author,
      answered.name as answers_to, ${unseenBy(asker)} as unseen, ${whose(asker)} as whose
    from v join mine on mine.id = v.line_id
    left join lateral (
      select r.id, r.name, r.module, count(*) over () as holders from ${phone} p join ${record} r on r.id = p.record_id ${joinContact}
      where p.e164 = v.remote and ${seesRecord(asker, 'r')}
      order by contact.at desc nulls last limit 1
    ) h on true
    left join lateral (
      select b.name from ${bulkPerson} p join ${bulkText} b on b.id = p.bulk_id
      where v.waits_since is not null and p.e164 = v.remote and p.standing = 'texted' and p.answered_at >= v.waits_since
      order by p.answered_at desc limit 1
    ) answered on true
    left join ${colleague} has on has.id = v.assignee_id
    left join lateral (
      (select 'text' as kind, m.made_at, m.direction, m.state, m.author_id, left(t.words, 200) as words from ${message} m
        left join ${activityContent} t on t.activity_id = m.activity_id
        where m.conversation_id = v.id and m.state <> 'taken-back' order by m.made_at desc, m.id desc limit 1)
      union all
      (select 'call', k.made_at, k.direction, ${stateOfCall}, k.colleague_id, null from ${call} k
        where k.remote = v.remote and k.line_id = v.line_id order by k.made_at desc limit 1)
      order by made_at desc limit 1
    ) newest on true
    left join ${colleague} author on author.id = newest.author_id
    order by v.waits_since is null, case when v.waits_since is not null then ${whose(asker)} end, v.waits_since, v.last_at desc, v.id desc`
  const { rows } = await ask<Row>(usual ? statement : planned(statement))
  return rows.map(itemOf)
}

type Row = Record<string, unknown> & {
  id: string
  remote: string
  last_at: number
  waits_since: number | null
  waits_for: OwedFor | null
  answers_to: string | null
  returns_at: number | null
  line_id: string
  line_name: string
  record_id: string | null
  record_name: string
  module: Module
  holders: number
  assignee_id: string | null
  assignee_name: string
  kind: 'text' | 'call'
  words: string | null
  direction: 'in' | 'out' | null
  state: string
  author: string | null
  unseen: boolean
  whose: 0 | 1 | 2
}

const WHOSE = ['me', 'nobody', 'colleague'] as const

const itemOf = (row: Row): InboxItem => ({
  conversationId: row.id,
  record: row.record_id ? { id: row.record_id, name: row.record_name, module: row.module } : null,
  holders: row.holders,
  remote: row.remote,
  lineId: row.line_id,
  line: row.line_name,
  lastAt: row.last_at,
  last: row.direction ? { kind: row.kind, words: row.words ?? '', ours: row.direction === 'out', by: row.author, state: row.state } : null,
  waitsSince: row.waits_since,
  waitsFor: row.waits_for,
  answersTo: row.answers_to,
  returnsAt: row.returns_at,
  assignee: row.assignee_id ? { id: row.assignee_id, firstName: row.assignee_name } : null,
  unseen: row.unseen,
  whose: WHOSE[row.whose],
})
