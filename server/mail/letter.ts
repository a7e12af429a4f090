import { sql } from 'drizzle-orm'
import { formatOfCountry, sayTime } from '~~/core/hours/format'
import { calendarDay } from '~~/core/hours/say'
import { wallOf } from '~~/core/hours/schedule'
import { zoneRules } from '~~/core/hours/zones'
import { showPhone } from '~~/core/phone/show'
import { ask } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { conversation, line, phone, record } from '../db/schema'
import { firmHome } from '../identity/firm'
import { readHabits } from '../identity/habits'
import type { SignedIn } from '../identity/sign-in'
import { joinContact } from '../reading/contact'
import { seesRecord } from '../reading/visible'
import type { Letter } from './post'

type Waits = Record<string, unknown> & { id: string, remote: string, line: string, since: number, name: string | null }

/** Of some conversations those that still wait, with whom as far as somebody may see, the longest waiting first. */
async function stillWait(to: SignedIn, conversationIds: string[]): Promise<Waits[]> {
  const { rows } = await ask<Waits>(sql`
    select v.id, v.remote, l.name as line, ${milliseconds(sql`v.waits_since`)} as since, h.name
    from ${conversation} v join ${line} l on l.id = v.line_id
    left join lateral (
      select r.name from ${phone} p join ${record} r on r.id = p.record_id ${joinContact}
      where p.e164 = v.remote and ${seesRecord(to, 'r')} order by contact.at desc nulls last limit 1
    ) h on true
    where v.id = any(${uuidArray(conversationIds)}) and v.waits_since is not null order by v.waits_since`)
  return rows
}

/**
 * Says who waits, since when, and where to answer; never what was written: a mail lies in other people's hands.
 *
 * @returns null where nobody of them waits any more
 */
export async function waitingLetter(id: string, to: SignedIn, conversationIds: string[], home: string, now: Date): Promise<Letter | null> {
  const waiting = await stillWait(to, conversationIds)
  if (waiting.length === 0) return null
  const since = await sayer(to, now)
  const nameOf = ({ name, remote }: Waits) => name ?? showPhone(remote)
  const subject = waiting.length === 1 ? `${nameOf(waiting[0]!)} waits for an answer` : `${waiting.length} people wait for an answer`
  const each = waiting.map(one => `${nameOf(one)} waits since ${since(one.since)}, on ${one.line}:\n${home}/inbox?with=${one.id}&answer=1`)
  const why = `You get this because of what you chose under “How I am told”: ${home}/told`
  return { id, to: { name: to.name, address: to.mail }, subject, text: `${[...each, why].join('\n\n')}\n` }
}

/** Says moments by somebody's own clock, in their own format; the day with it where it is not today. */
async function sayer(to: SignedIn, now: Date): Promise<(instant: number) => string> {
  const { format } = await readHabits(to.id)
  const usual = formatOfCountry((await firmHome()).country)
  const chosen = { hours: format.hours ?? usual.hours, dayFirst: format.dayFirst ?? usual.dayFirst }
  const zone = zoneRules(to.zone)!
  const today = wallOf(now.getTime(), zone).slice(0, 10)
  return (instant) => {
    const [day, time] = wallOf(instant, zone).split('T') as [string, string]
    const said = sayTime(time.slice(0, 5), chosen)
    return day === today ? said : `${said} on ${calendarDay(day, chosen, Number(today.slice(0, 4)))}`
  }
}
