import { sql } from 'drizzle-orm'
import { addDays, dayAt, dayStart, nextWorkingDay } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { oversees } from '~~/shared/permissions'
import type { FailedText, FreshRecord, Today } from '~~/shared/today'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { activityContent, contact, conversation, message, numberState, phone, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { openTasks } from '../tasks/tasks'
import { awayOver } from './away'
import { teamToday } from './team-today'
import { waitingByLine } from './waiting-lines'

const MOST = 20
const WEEK_MS = 7 * 86_400_000
const TWO_DAYS_MS = 2 * 86_400_000

/** What is mine to do today, in my own day: what is due, what failed, and who is new and was never contacted. */
export async function readToday(asker: SignedIn, now: Date): Promise<Today> {
  const rules = zoneRules(asker.zone)!
  const dayEnds = dayStart(rules, addDays(dayAt(rules, now.getTime()), 1))
  const soonEnds = dayStart(rules, addDays(nextWorkingDay(dayAt(rules, now.getTime())), 1))
  const tasks = (await openTasks(asker, 'mine')).filter(({ dueAt }) => dueAt < soonEnds)
  const callable = await callableOf(tasks.map(({ record: { id } }) => id))
  const withPhone = tasks.map(one => ({ ...one, phoneId: callable.get(one.record.id) ?? null }))
  return {
    due: withPhone.filter(({ dueAt }) => dueAt <= now.getTime()),
    later: withPhone.filter(({ dueAt }) => dueAt > now.getTime() && dueAt < dayEnds),
    soon: withPhone.filter(({ dueAt }) => dueAt >= dayEnds),
    failed: await failedTexts(asker, now),
    fresh: await freshRecords(asker, now),
    away: oversees(asker) ? await awayOver(asker) : [],
    team: oversees(asker) ? await teamToday(asker, now) : null,
    lines: oversees(asker) ? await waitingByLine(asker) : null,
  }
}

/** The first number of each record that can be called. */
async function callableOf(recordIds: string[]): Promise<Map<string, string>> {
  const { rows } = await ask<{ record_id: string, id: string }>(sql`
    select distinct on (p.record_id) p.record_id, p.id from ${phone} p left join ${numberState} n on n.e164 = p.e164
    where p.record_id in (select x::uuid from jsonb_array_elements_text(${JSON.stringify(recordIds)}::jsonb) x) and p.e164 is not null
      and coalesce(n.calls, 'unknown') <> 'refused'
    order by p.record_id, p.position`)
  return new Map(rows.map(row => [row.record_id, row.id]))
}

/** Texts of mine that did not arrive in the last two days, where nothing was sent to that number since. */
async function failedTexts(asker: SignedIn, now: Date): Promise<FailedText[]> {
  const { rows } = await ask<FailedText & Record<string, unknown>>(sql`
    select m.id, ${milliseconds(sql`m.made_at`)} as at, m.state, m.code, v.remote, t.words, r.id as "recordId", r.name
    from ${message} m
    join ${conversation} v on v.id = m.conversation_id
    left join ${activityContent} t on t.activity_id = m.activity_id
    left join ${record} r on r.id = m.record_id
    where m.author_id = ${asker.id}::uuid and m.made_at > ${at(new Date(now.getTime() - TWO_DAYS_MS))}
      and m.state in ('failed', 'undelivered', 'held', 'not-known')
      and not exists (select 1 from ${message} n where n.conversation_id = m.conversation_id and n.made_at > m.made_at)
    order by m.made_at desc limit ${sql.raw(String(MOST))}`)
  return rows
}

/** People who became mine in the last week and whom nobody has texted or called yet, the newest first. */
async function freshRecords(asker: SignedIn, now: Date): Promise<FreshRecord[]> {
  const { rows } = await ask<FreshRecord & Record<string, unknown>>(sql`
    select r.id, r.name, r.module, r.title, r.city, ${milliseconds(sql`r.made_at`)} as "madeAt"
    from ${record} r
    where r.owner_id = ${asker.id}::uuid and r.module in ('lead', 'candidate', 'client')
      and r.made_at > ${at(new Date(now.getTime() - WEEK_MS))} and not exists (select 1 from ${contact} c where c.record_id = r.id)
    order by r.made_at desc limit ${sql.raw(String(MOST))}`)
  return rows
}
