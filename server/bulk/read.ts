import { eq, sql } from 'drizzle-orm'
import { BULK_STANDINGS } from '~~/core/bulk/states'
import type { LeftOutReason } from '~~/core/bulk/fate'
import { showPhone } from '~~/core/phone/show'
import type { BulkAudience, BulkCounts, BulkPeople, BulkPersonRow, BulkSample, BulkTextDetail, BulkTextHead, LeftOut } from '~~/shared/bulk-texts'
import type { BulkPeopleQuery } from '~~/shared/schemas/bulk-text'
import { ask, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { activityContent, bulkGroup, bulkPerson, bulkText, carrierPrice, colleague, conversation, line, message, record, template } from '../db/schema'
import { houseFrom, HOUSE_RULES } from '../hours/house'
import type { SignedIn } from '../identity/sign-in'
import { joinCompany } from '../reading/company'
import { seesRecord, visible } from '../reading/visible'
import { mustSeeBulk } from './one'
import { paceOf } from './pace'
import { placesShown } from './plan'
import { which } from './whom'

const PAGE = 50
/** As many as anybody looks back over. */
const MOST_SHOWN = 100

const HEAD = sql`b.id, b.name, b.modules, b.state, coalesce(cardinality(b.record_ids), 0) as people, ${milliseconds(sql`b.made_at`)} as "madeAt",
  jsonb_build_object('id', c.id, 'firstName', c.first_name) as "madeBy", ${milliseconds(sql`b.started_at`)} as "startedAt",
  ${milliseconds(sql`b.ended_at`)} as "endedAt"`

/** How many stand where, as an object. */
const COUNTS = sql`(select coalesce(jsonb_object_agg(s.standing, s.count), '{}') from (
  select p.standing, count(*)::int as count from ${bulkPerson} p where p.bulk_id = b.id group by 1) s)`

type HeadRow = Record<string, unknown> & Omit<BulkTextHead, 'counts'> & { counts: Partial<BulkCounts> }

const countsOf = (found: Partial<BulkCounts>): BulkCounts =>
  Object.fromEntries(BULK_STANDINGS.map(standing => [standing, found[standing] ?? 0])) as BulkCounts

/** The bulk texts that I may see, the newest first. */
export async function listBulks(asker: SignedIn): Promise<BulkTextHead[]> {
  const { rows } = await ask<HeadRow>(sql`
    select ${HEAD}, ${COUNTS} as counts from ${bulkText} b join ${colleague} c on c.id = b.made_by
    where ${visible(asker, 'bulk.work', { owner: sql`b.made_by`, team: sql`null::uuid` })}
    order by b.made_at desc limit ${sql.raw(String(MOST_SHOWN))}`)
  return rows.map(row => ({ ...row, counts: countsOf(row.counts) }))
}

/** One of them, with what the check has found, what it costs, when each leaves and what became of them. */
export async function readBulk(asker: SignedIn, id: string): Promise<BulkTextDetail> {
  return tx(async (database) => {
    const bulk = await mustSeeBulk(asker, id)
    const { rows: [found] } = await ask<HeadRow & { rules: string }>(sql`select ${HEAD}, ${HOUSE_RULES} as rules from ${bulkText} b join ${colleague} c on c.id = b.made_by
      where b.id = ${id}::uuid`)
    const { rules, ...head } = found!
    const going = bulk.state === 'running' || bulk.state === 'paused'
    const tallies = await (going ? tallyOfThoseUnderWay(id) : tally(id))
    const sum = (which: (one: Tally) => boolean) => tallies.filter(which).reduce((all, { people }) => all + people, 0)
    const groups = bulk.runs ? await database.select().from(bulkGroup).where(eq(bulkGroup.bulkId, id)) : []
    const [from] = bulk.templateId
      ? await database.select({ name: template.name }).from(template).where(eq(template.id, bulk.templateId))
      : []
    return {
      ...head,
      counts: countsOf(Object.fromEntries(BULK_STANDINGS.map(standing => [standing, sum(one => one.standing === standing)]))),
      body: bulk.body,
      template: bulk.templateId ? { id: bulk.templateId, name: from?.name ?? '', version: bulk.templateVersion ?? 1 } : null,
      fillIns: bulk.fillIns,
      answers: bulk.answers,
      lineId: bulk.lineId,
      spread: bulk.spread,
      numberWay: bulk.numberWay,
      numberLabel: bulk.numberLabel,
      pictureIds: bulk.pictureIds,
      latelyDays: bulk.latelyDays,
      holdOut: bulk.holdOut,
      occasion: bulk.occasion,
      place: bulk.place,
      eventAt: bulk.eventAt?.getTime() ?? null,
      days: bulk.days,
      checked: bulk.checked,
      why: bulk.why,
      leftOut: leftOutOf(tallies),
      answered: sum(({ standing, answered }) => standing === 'texted' && answered),
      answersAnHour: bulk.answersAnHour,
      waitsSince: bulk.waitsSince?.getTime() ?? null,
      pace: bulk.startedAt ? await paceOf(id) : [],
      audiences: await audiencesOf(asker, bulk.occasionId),
      answersTo: await answersOf(asker, bulk.answersId),
      repeats: bulk.came === null || bulk.gone === null ? null : { came: bulk.came, gone: bulk.gone },
      mayRepeat: bulk.whom !== null && bulk.answersId === null,
      lately: sum(({ standing, lately }) => standing === 'ready' && lately),
      parts: partsOf(tallies),
      cost: costOf(tallies),
      longest: going ? null : await longestOf(asker, id),
      states: await statesOf(id),
      runs: bulk.runs,
      places: bulk.runs ? placesShown(groups, houseFrom(rules, bulk.startedAt ?? bulk.madeAt), bulk.runs) : [],
    }
  })
}

/** All about one occasion, each for an audience of its own; none where there is but one. */
async function audiencesOf(asker: SignedIn, occasionId: string): Promise<BulkAudience[]> {
  const { rows } = await ask<Omit<BulkAudience, 'answered'> & { hits: number, of: number } & Record<string, unknown>>(sql`
    select b.id, b.name, b.state, s.hits, s.of from ${bulkText} b cross join lateral (
      select count(*)::int as of, count(p.answered_at)::int as hits from ${bulkPerson} p where p.bulk_id = b.id and p.standing = 'texted') s
    where b.occasion_id = ${occasionId}::uuid and ${visible(asker, 'bulk.work', { owner: sql`b.made_by`, team: sql`null::uuid` })}
      -- of one alone nobody counts anything
      and (select count(*) from ${bulkText} other where other.occasion_id = ${occasionId}::uuid) > 1
    order by b.made_at, b.id`)
  return rows.length < 2 ? [] : rows.map(({ hits, of, ...audience }) => ({ ...audience, answered: { hits, of } }))
}

async function answersOf(asker: SignedIn, id: string | null): Promise<BulkTextDetail['answersTo']> {
  if (!id) return null
  const { rows: [found] } = await ask<{ id: string, name: string }>(sql`
    select b.id, b.name from ${bulkText} b where b.id = ${id}::uuid and ${visible(asker, 'bulk.work', { owner: sql`b.made_by`, team: sql`null::uuid` })}`)
  return found ?? null
}

interface Tally {
  standing: keyof BulkCounts
  reason: LeftOutReason | null
  detail: string | null
  lately: boolean
  answered: boolean
  parts: number | null
  micros: number | null
  currency: string | null
  people: number
}

/** All counts of a bulk text in one walk over its people. */
async function tally(id: string): Promise<Tally[]> {
  const { rows } = await ask<Tally & Record<string, unknown>>(sql`
    select s.standing, s.reason, s.detail, s.lately, s.answered, s.parts, s.people, case when b.picture_ids = '[]' then c.micros_per_part else c.micros_per_picture end::float8 as micros, c.currency from (
      select standing, reason, case when reason = 'empty-field' then detail end as detail, lately, answered_at is not null as answered, parts, line_id,
        count(*)::int as people
      from ${bulkPerson} where bulk_id = ${id}::uuid group by 1, 2, 3, 4, 5, 6, 7
    ) s join ${bulkText} b on b.id = ${id}::uuid left join ${line} l on l.id = s.line_id left join ${carrierPrice} c on c.carrier = l.carrier and c.country = l.country`)
  return rows
}

/** The same for one under way, of which only what changes is asked, over and over: by an index alone. */
async function tallyOfThoseUnderWay(id: string): Promise<Tally[]> {
  const { rows } = await ask<Pick<Tally, 'standing' | 'reason' | 'people'> & Record<string, unknown>>(sql`
    select standing, reason, count(*)::int as people from ${bulkPerson} where bulk_id = ${id}::uuid group by 1, 2`)
  const { rows: [counted] } = await ask<{ people: number }>(sql`
    select count(*)::int as people from ${bulkPerson} where bulk_id = ${id}::uuid and standing = 'texted' and answered_at is not null`)
  const UNASKED = { detail: null, lately: false, answered: false, parts: null, micros: null, currency: null }
  const answered = counted!.people
  return rows.flatMap(row => row.standing === 'texted'
    ? [{ ...UNASKED, ...row, people: row.people - answered }, { ...UNASKED, ...row, answered: true, people: answered }]
    : [{ ...UNASKED, ...row }])
}

function leftOutOf(tallies: Tally[]): LeftOut[] {
  const found = new Map<string, LeftOut>()
  for (const { standing, reason, detail, people } of tallies) {
    if (standing !== 'left-out' || !reason) continue
    const key = `${reason} ${detail ?? ''}`
    found.set(key, { reason, detail, people: (found.get(key)?.people ?? 0) + people })
  }
  return [...found.values()].sort((a, b) => b.people - a.people)
}

/** Those that get it or have got it. */
const gets = ({ standing }: Tally) => standing === 'ready' || standing === 'texted'

function partsOf(tallies: Tally[]): Record<number, number> {
  const parts: Record<number, number> = {}
  for (const one of tallies) if (gets(one) && one.parts) parts[one.parts] = (parts[one.parts] ?? 0) + one.people
  return parts
}

/** Null where a carrier has told no price, or not all are in one currency: then no sum says anything. */
function costOf(tallies: Tally[]): BulkTextDetail['cost'] {
  const texted = tallies.filter(gets)
  const currencies = new Set(texted.map(({ currency }) => currency))
  const [currency] = currencies
  if (currencies.size !== 1 || !currency) return null
  return { micros: texted.reduce((sum, { people, parts, micros }) => sum + people * (parts ?? 1) * (micros ?? 0), 0), currency }
}

async function longestOf(asker: SignedIn, id: string): Promise<BulkSample | null> {
  const { rows: [found] } = await ask<BulkSample & Record<string, unknown>>(sql`
    select p.record_id as "recordId", r.name, p.words, p.units, p.parts from ${bulkPerson} p
      join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    where p.bulk_id = ${id}::uuid and p.standing in ('ready', 'texted') order by p.units desc, p.position limit 1`)
  return found ?? null
}

async function statesOf(id: string): Promise<Record<string, number>> {
  const { rows } = await ask<{ state: string, people: number }>(sql`
    select m.state, count(*)::int as people from ${bulkPerson} p join ${message} m on m.id = p.id
    where p.bulk_id = ${id}::uuid and p.standing = 'texted' group by 1`)
  return Object.fromEntries(rows.map(({ state, people }) => [state, people]))
}

/** As an index has them, so that a page is read and not sorted. */
const IN_ORDER = sql`order by p.bulk_id, p.standing, p.reason, p.position`

/** What somebody `p` has written since they wait. */
const WAITS_WITH = sql`(select string_agg(t.words, ${'\n'} order by i.made_at) from ${conversation} v
  join ${message} i on i.conversation_id = v.id and i.direction = 'in' and i.made_at >= v.waits_since
  join ${activityContent} t on t.activity_id = i.activity_id where v.line_id = p.line_id and v.remote = p.e164)`

type PersonRow = Record<string, unknown> & BulkPersonRow & { e164: string | null }

/** A page of its people: those of one standing, or left out for one reason, in the order in which they were gathered. */
export async function readBulkPeople(
  asker: SignedIn,
  id: string,
  { page, ...those }: BulkPeopleQuery,
): Promise<BulkPeople> {
  const bulk = await mustSeeBulk(asker, id)
  const { rows } = await ask<PersonRow>(sql`
    select p.record_id as "recordId", r.name, company.name as company, r.city, p.standing, p.reason, p.detail, p.lately, p.e164, l.name as line,
      p.own_words is not null or p.own_phone_id is not null as own,
      ${bulk.answersId ? WAITS_WITH : sql`null`} as asked, p.words, p.units, p.parts, m.state, ${milliseconds(sql`m.handed_at`)} as "sentAt", ${milliseconds(sql`p.answered_at`)} as "answeredAt", p.answer_noted_by is not null as "answerNoted"
    from (select * from ${bulkPerson} p where ${which({ bulkId: id, ...those })} ${IN_ORDER}
      limit ${sql.raw(String(PAGE))} offset ${(page - 1) * PAGE}) p
    join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')} ${joinCompany(asker)}
    left join ${line} l on l.id = p.line_id left join ${message} m on m.id = p.id
    ${IN_ORDER}`)
  return {
    rows: rows.map(({ e164, ...row }) => ({ ...row, number: e164 && showPhone(e164) })),
    page,
    size: PAGE,
  }
}
