import { sql } from 'drizzle-orm'
import { Gauge } from 'prom-client'
import { leftIn } from '~~/core/money/purse'
import { allCarriers } from '../carriers/registry'
import { ask } from '../db/door'
import { diskIsFull } from '../db/disk'
import { at } from '../db/instants'
import { colleague, job, moneyAccount, setAsideEvent, signIn } from '../db/schema'
import { registry } from './registry'

const gauge = (name: string, help: string, labelNames: string[] = []) => new Gauge({ name: `plauder_${name}`, help, labelNames, registers: [registry] })

const jobs = gauge('jobs', 'Jobs that are not done, by kind: due, for later, or broken too often.', ['kind', 'state'])
const oldestDue = gauge('oldest_due_job_seconds', 'For how long the job that is longest due has been due.')
const setAside = gauge('set_aside_events', 'Events of carriers and exchanges that nobody could read.')
const people = gauge('colleagues', 'Colleagues who work here.')
const signedIn = gauge('sign_ins', 'Sign-ins that hold.')
const carriers = gauge('carrier_up', 'Whether a carrier to which a connection stays open is reached; others count as reached.', ['carrier'])
const balance = gauge('balance', 'What can still be promised to texts, in units of its currency.', ['currency'])
const size = gauge('database_bytes', 'How large the database is.')
const full = gauge('disk_full', 'Whether nothing is taken in for want of room on the disk.')

/** How the house stands: the same from every process of one database, but for its carriers. */
export async function lookAround(now: Date): Promise<void> {
  const { rows: found } = await ask<{ kind: string, state: string, count: number, waits: number }>(sql`
    select kind, case when dead_at is not null then 'broken' when due_at <= ${at(now)} then 'due' else 'later' end as state, count(*)::int as count,
      coalesce(max(extract(epoch from ${at(now)} - due_at)) filter (where dead_at is null and due_at <= ${at(now)}), 0)::float8 as waits
    from ${job} where done_at is null group by 1, 2`)
  jobs.reset()
  for (const { kind, state, count } of found) jobs.set({ kind, state }, count)
  oldestDue.set(Math.max(0, ...found.map(({ waits }) => waits)))
  const { rows: [rest] } = await ask<{ aside: number, people: number, signedIn: number, bytes: number }>(sql`
    select (select count(*) from ${setAsideEvent} where settled_at is null)::int as aside,
      (select count(*) from ${colleague} where left_at is null)::int as people,
      (select count(*) from ${signIn} where ends_at > ${at(now)})::int as "signedIn",
      pg_database_size(current_database())::float8 as bytes`)
  setAside.set(rest!.aside)
  people.set(rest!.people)
  signedIn.set(rest!.signedIn)
  size.set(rest!.bytes)
  full.set(diskIsFull() ? 1 : 0)
  carriers.reset()
  for (const { name, state } of allCarriers()) carriers.set({ carrier: name }, state?.()?.is === 'away' ? 0 : 1)
  const { rows: purses } = await ask<{ currency: string, prepaid: boolean, balanceMicros: number, heldMicros: number }>(sql`
    select currency, prepaid, balance_micros::float8 as "balanceMicros", held_micros::float8 as "heldMicros" from ${moneyAccount} where prepaid`)
  balance.reset()
  for (const purse of purses) balance.set({ currency: purse.currency }, leftIn(purse) / 1_000_000)
}
