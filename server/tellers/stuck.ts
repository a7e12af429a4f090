import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { Stuck } from '~~/shared/stuck'
import { takeOrSetAside } from './set-aside'
import { tellerNamed } from './tellers'
import { ask, read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { job, setAsideEvent } from '../db/schema'
import { conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { openJobAgain } from '../jobs/change'
import { WORKSHOP } from '../workshop'
import { JOB_WORDS, type JobKind } from '../jobs/kinds'

const MOST = 200

/** What broke and does not go on by itself, for an admin: jobs, and what could not be taken. */
export async function readStuck(asker: SignedIn): Promise<Stuck> {
  mustAdminister(asker)
  return tx(async (database) => {
    const jobs = await database
      .select({ id: job.id, kind: job.kind, failures: job.failures, why: job.lastFailure, since: milliseconds(job.deadAt) })
      .from(job)
      .where(and(isNotNull(job.deadAt), isNull(job.doneAt)))
      .orderBy(desc(job.deadAt))
      .limit(MOST)
    const events = await database
      .select({
        id: setAsideEvent.id,
        from: setAsideEvent.teller,
        why: setAsideEvent.why,
        told: setAsideEvent.told,
        at: milliseconds(setAsideEvent.at),
      })
      .from(setAsideEvent)
      .where(isNull(setAsideEvent.settledAt))
      .orderBy(desc(setAsideEvent.at))
      .limit(MOST)
    return {
      jobs: jobs.map(one => ({ ...one, what: JOB_WORDS[one.kind as JobKind] ?? one.kind, why: one.why ?? '' })),
      events: events.map(one => ({ ...one, again: tellerNamed(one.from) !== undefined })),
    }
  })
}

/**
 * Starts a job again that broke too often.
 *
 * @throws Problem 404 for one that waits for nobody
 */
export async function startAgain(asker: SignedIn, id: string, now: Date): Promise<Stuck> {
  mustAdminister(asker)
  return tx(async (database) => {
    const [dead] = await database
      .select({ id: job.id, kind: job.kind, payload: job.payload })
      .from(job)
      .where(and(eq(job.id, id), isNotNull(job.deadAt), isNull(job.doneAt)))
      .for('update')
    if (!dead) throw notFound('job')
    await WORKSHOP.endings?.[dead.kind]?.again(dead, now)
    await openJobAgain({ id }, now)
    await note('job-started-again', asker.id, now, { jobId: id, kind: dead.kind })
    return readStuck(asker)
  })
}

/**
 * Reads an event once more that was set aside, or lets it be.
 *
 * @throws Problem 404; 409 where it still cannot be taken
 */
export async function settleEvent(asker: SignedIn, id: string, how: 'again' | 'leave', now: Date): Promise<Stuck> {
  mustAdminister(asker)
  const [kept] = await read(database =>
    database
      .select()
      .from(setAsideEvent)
      .where(and(eq(setAsideEvent.id, id), isNull(setAsideEvent.settledAt))),
  )
  if (!kept) throw notFound('event')
  const teller = how === 'again' ? tellerNamed(kept.teller) : undefined
  if (how === 'again' && (!teller || await takeOrSetAside(teller, JSON.parse(kept.told), now) !== 'taken')) {
    throw conflict('still-stuck', 'Still not', 'It still cannot be taken, for the same reason. Ask whoever runs the carrier, or let it be.')
  }
  return tx(async (database) => {
    await database.update(setAsideEvent).set({ settledAt: now, settledBy: asker.id }).where(eq(setAsideEvent.id, id))
    await note(how === 'again' ? 'event-taken-after-all' : 'event-let-be', asker.id, now, { setAsideId: id, teller: kept.teller })
    return readStuck(asker)
  })
}

/** How much of it there is, for those whom it concerns; 0 for others. */
export async function countStuck(asker: SignedIn): Promise<number> {
  if (!can(asker, 'stuck.see', {})) return 0
  const { rows: [row] } = await ask<{ stuck: number }>(sql`
    select ((select count(*) from ${job} where dead_at is not null and done_at is null) + (select count(*) from ${setAsideEvent} where
      settled_at is null))::int as stuck`)
  return row!.stuck
}

function mustAdminister(asker: SignedIn): void {
  if (!can(asker, 'stuck.see', {})) throw notAllowed('see what broke; an admin does')
}
