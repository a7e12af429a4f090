import { sql, type SQL } from 'drizzle-orm'
import { answeredAt, talkMs } from '~~/core/call/facts'
import type { DispositionColour } from '~~/shared/calling'
import { can } from '~~/shared/permissions'
import type { RoundColleague, RoundDetail, RoundHead, RoundPeople, RoundPersonRow, RoundResult, StandingCounts } from '~~/shared/rounds'
import type { RoundPeopleQuery } from '~~/shared/schemas/round'
import { ask } from '../../db/door'
import { at, milliseconds } from '../../db/instants'
import { call, callRound, colleague, disposition, record, roundColleague, roundPerson, team } from '../../db/schema'
import { readHouse, type House } from '../../hours/house'
import { seesRecord, visible } from '../../reading/visible'
import type { SignedIn } from '../../identity/sign-in'
import { factsOf, storedOf } from '../stored'
import { joinCompany } from '../../reading/company'
import { COUNTS, countsOf } from './mine'
import { JOIN_REACH, PERSON_COLUMNS, whyPassed, type PersonRow } from './facts'
import { notNow } from './not-now'
import { mustHoldRound, roundBelongs } from './one'
import { turnsOf } from './order'

const MONTHS_MS = 90 * 86_400_000
const PAGE = 50

type HeadRow = Record<string, unknown> & Omit<RoundHead, 'counts' | 'mayChange'> & { counts: Partial<StandingCounts> }

/** The rounds that I may work: open and paused ones, and those that were made in the last three months; the newest first. */
export const listRounds = (asker: SignedIn, now: Date): Promise<RoundHead[]> =>
  heads(asker, sql`${visible(asker, 'round.work', { owner: sql`w.made_by`, team: sql`w.team_id` })}
    and (w.state <> 'stopped' or w.made_at > ${at(now.getTime() - MONTHS_MS)})`)

async function heads(asker: SignedIn, where: SQL): Promise<RoundHead[]> {
  const { rows } = await ask<HeadRow>(sql`
    select w.id, w.name, w.module, w.state, w.order, w.pause_seconds as "pauseSeconds", w.not_within_hours as "notWithinHours",
      ${milliseconds(sql`w.made_at`)} as "madeAt",
      jsonb_build_object('id', maker.id, 'firstName', maker.first_name) as "madeBy", case
        when t.id is not null then jsonb_build_object('id', t.id, 'name', t.name) end as team, ${COUNTS} as counts,
      (select coalesce(jsonb_agg(jsonb_build_object('id', c.id, 'firstName', c.first_name) order by m.joined_at), '[]')
        from ${roundColleague} m join ${colleague} c on c.id = m.colleague_id where m.round_id = w.id and m.left_at is null) as "on"
    from ${callRound} w join ${colleague} maker on maker.id = w.made_by left join ${team} t on t.id = w.team_id
    where ${where} order by w.made_at desc, w.id desc limit 200`)
  return rows.map(row => ({
    ...row,
    counts: countsOf(row.counts),
    mayChange: can(asker, 'round.edit', roundBelongs({ madeBy: row.madeBy.id, teamId: row.team?.id ?? null })),
  }))
}

/** A round with how its calls went and who made them. */
export async function readRound(asker: SignedIn, id: string, now: Date): Promise<RoundDetail> {
  const round = await mustHoldRound(asker, id)
  const [head] = await heads(asker, sql`w.id = ${id}::uuid`)
  const calls = await callsOf(id)
  return { ...head!, results: resultsOf(calls), colleagues: await colleaguesOf(id, calls, now), notNow: await notNow(round, now) }
}

interface RoundCall {
  colleagueId: string
  facts: ReturnType<typeof factsOf>
  name: string | null
  colour: DispositionColour | null
  /** Somebody answered who is not whom it was for. */
  wrong: boolean
}

async function callsOf(id: string): Promise<RoundCall[]> {
  const { rows } = await ask<Pick<RoundCall, 'name' | 'colour' | 'wrong'> & { call: Record<string, unknown> }>(sql`
    select to_jsonb(c) as call, d.name, d.colour, coalesce(d.effects @> '[{"kind":"wrong-number"}]', false) as wrong from ${roundPerson} p join ${call} c on c.id = p.call_id
      left join ${disposition} d on d.id = c.disposition_id where p.round_id = ${id}::uuid`)
  return rows.map(({ call: row, ...said }) => {
    const stored = storedOf(row)
    return { colleagueId: stored.colleagueId!, facts: factsOf(stored), ...said }
  })
}

function resultsOf(calls: RoundCall[]): RoundResult[] {
  const counts = new Map<string, RoundResult>()
  for (const { name, colour } of calls) {
    const known = counts.get(name ?? '') ?? { name: name ?? '', colour, count: 0 }
    counts.set(name ?? '', { ...known, count: known.count + 1 })
  }
  return [...counts.values()].sort(
    (a, b) => Number(a.name === '') - Number(b.name === '') || b.count - a.count || a.name.localeCompare(b.name),
  )
}

async function colleaguesOf(id: string, calls: RoundCall[], now: Date): Promise<RoundColleague[]> {
  const { rows } = await ask<Pick<RoundColleague, 'id' | 'firstName' | 'here'> & Record<string, unknown>>(sql`
    select c.id, c.first_name as "firstName", m.left_at is null as here from ${roundColleague} m
      join ${colleague} c on c.id = m.colleague_id where m.round_id = ${id}::uuid order by m.joined_at`)
  return rows.map(({ id: colleagueId, firstName, here }) => {
    const own = calls.filter(one => one.colleagueId === colleagueId)
    const reached = own.filter(({ facts, wrong }) => answeredAt(facts) !== null && facts.answeredBy === 'person' && !wrong)
    return {
      id: colleagueId,
      firstName,
      here,
      called: own.length,
      reached: reached.length,
      talkMs: reached.reduce((sum, { facts }) => sum + talkMs(facts, now.getTime()), 0),
    }
  })
}

type Row = PersonRow & Omit<RoundPersonRow, 'facts'> & { call: Record<string, unknown> | null }

/**
 * The people of a round whom one may see, a page of them: those in hand and those called last first, then those who wait,
 * in their order.
 */
export async function readRoundPeople(asker: SignedIn, id: string, { state, page }: RoundPeopleQuery, now: Date): Promise<RoundPeople> {
  const round = await mustHoldRound(asker, id)
  const where = sql`p.round_id = ${id}::uuid and ${state ? sql`p.state = ${state}` : sql`true`}
    and ${seesRecord(asker, 'r')}`
  const { rows: [counted] } = await ask<{ total: number }>(sql`select count(*)::int as total from ${roundPerson} p
    join ${record} r on r.id = p.record_id where ${where}`)
  const { rows } = await ask<Row>(sql`
    select ${PERSON_COLUMNS}, r.name, r.title, r.city, company.name as company, p.state, p.reason,
      ${milliseconds(sql`p.not_before`)} as "notBefore", ${milliseconds(sql`p.changed_at`)} as "changedAt",
      who.first_name as by, d.name as disposition, to_jsonb(c) as call
    from ${roundPerson} p join ${record} r on r.id = p.record_id ${joinCompany(asker)} ${JOIN_REACH}
    left join ${colleague} who on who.id = p.colleague_id left join ${call} c on c.id = p.call_id
      left join ${disposition} d on d.id = c.disposition_id
    where ${where}
    order by p.state <> 'held', p.state <> 'called', case when p.state = 'called' then p.changed_at end desc, ${await turnsOf(round, now)}
    limit ${sql.raw(String(PAGE))} offset ${sql.raw(String((page - 1) * PAGE))}`)
  const house = await readHouse(now)
  return {
    rows: rows.map(row => rowOf(row, house, round.notWithinHours, now)),
    total: counted!.total,
    page,
    size: PAGE,
  }
}

/** Who waits has the reason for which they would be passed over if it were their turn now. */
function rowOf(row: Row, house: House, notWithinHours: number, now: Date): RoundPersonRow {
  const { recordId, name, title, company, city, state, by, disposition, changedAt } = row
  const why = state === 'waiting' ? whyPassed(row, house, notWithinHours, now) : null
  return {
    recordId,
    name,
    title,
    company,
    city,
    state,
    by,
    disposition,
    changedAt,
    reason: state === 'waiting' ? why?.reason ?? null : row.reason,
    notBefore: why?.notBefore ?? row.notBefore,
    facts: row.call ? factsOf(storedOf(row.call)) : null,
  }
}
