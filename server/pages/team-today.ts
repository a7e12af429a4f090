import { sql } from 'drizzle-orm'
import { dayAt, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import type { TeamDay } from '~~/shared/today'
import { ask } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { call, colleague, message, task } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'

const DAY_MS = 86_400_000

/** How the day goes of everybody whom a lead leads, or, for an admin, of everybody, since midnight by the reader's clock. */
export async function teamToday(asker: SignedIn, now: Date): Promise<TeamDay[]> {
  const rules = zoneRules(asker.zone)!
  const since = at(dayStart(rules, dayAt(rules, now.getTime())))
  const who = asker.role === 'admin' ? sql`true` : sql`c.id = any(${uuidArray(asker.peopleIds)})`
  const { rows } = await ask<TeamDay & Record<string, unknown>>(sql`
    select c.id, c.name,
      (select count(*) from ${message} m where m.author_id = c.id and m.direction = 'out' and m.made_at >= ${since}
        and m.state <> 'taken-back')::int as texts,
      (select count(*) from ${message} m where m.author_id = c.id and m.made_at >= ${since}
        and m.state in ('failed', 'undelivered', 'held', 'not-known'))::int as failed,
      k.calls, k.reached, k.open,
      (select count(*) from ${task} t where t.colleague_id = c.id and t.done_at is null and t.due_at < ${at(now)})::int as overdue
    from ${colleague} c
    cross join lateral (
      select count(*) filter (where k.made_at >= ${since})::int as calls,
        count(*) filter (where k.made_at >= ${since} and k.answered_by = 'person')::int as reached,
        count(*) filter (where k.ended_at is not null and k.disposed_at is null and k.put_away_at is null)::int as open
      from ${call} k where k.colleague_id = c.id and k.made_at > ${at(now.getTime() - DAY_MS)}) k
    where ${who} and c.left_at is null and c.id <> ${asker.id}::uuid
    order by c.name collate "und-x-icu"`)
  return rows
}
