import { sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { job } from '../db/schema'
import { log } from '../http/log'
import { crashPoint } from './crash-points'
import { alarm } from './wake'

export type JobOutcome = { done: true } | { done: false, dueAt: Date }

export interface ClaimedJob {
  id: string
  kind: string
  payload: Record<string, unknown>
  /** Counts claims; an older attempt's late result is ignored. */
  attempt: number
  orderAt: Date
  /** Commits a result together with the job's own outcome, unless another claim has overtaken this one. */
  settle: (work: () => Promise<JobOutcome>) => Promise<JobOutcome>
}

/** A claim: the job as it was taken. */
export type Claim = Omit<ClaimedJob, 'settle'>

export type Handler = (job: ClaimedJob, now: () => Date) => Promise<JobOutcome>

/** Longer than any hand-over takes, so that only a dead claimant loses a lease. */
const LEASE_MS = 30_000
const AT_ONCE = 20

class Overtaken extends Error {}

/**
 * Claims due jobs in one statement: the oldest of each lane, if nothing of that lane is in flight.
 * SKIP LOCKED lets several processes claim beside each other.
 */
export async function claimJobs(now: Date, limit: number): Promise<Claim[]> {
  const at = sql`${now.toISOString()}::timestamptz`
  const { rows } = await tx(database => database.execute<{ id: string, kind: string, payload: Record<string, unknown>, attempt: number, order_at: number }>(sql`
    update ${job} set attempt = attempt + 1, lease_until = ${new Date(now.getTime() + LEASE_MS).toISOString()}::timestamptz
    where id in (
      select j.id from ${job} j
      where j.done_at is null and j.due_at <= ${at} and (j.lease_until is null or j.lease_until <= ${at})
        and not exists (
          select 1 from ${job} e
          where e.lane = j.lane and e.done_at is null and (e.order_at, e.id) < (j.order_at, j.id) and e.order_at <= ${at}
        )
      order by j.due_at limit ${limit}
      for update skip locked
    )
    returning id, kind, payload, attempt, ${milliseconds(sql`order_at`)} as order_at`))
  return rows.map(({ order_at, ...rest }) => ({ ...rest, orderAt: new Date(order_at) }))
}

/** After a restart nobody else holds the leases of this database: they are taken back at once. */
export async function takeLeasesBack(): Promise<void> {
  await tx(database => database.update(job).set({ leaseUntil: null }).where(sql`${job.doneAt} is null`))
}

/** Writes an outcome if the attempt is still the newest. */
async function settle(claimed: Claim, work: () => Promise<JobOutcome>, now: () => Date): Promise<JobOutcome> {
  return tx(async (database) => {
    const outcome = await work()
    const values = outcome.done ? { doneAt: now() } : { dueAt: outcome.dueAt }
    const settled = await database.update(job)
      .set({ ...values, leaseUntil: null })
      .where(sql`${job.id} = ${claimed.id} and ${job.attempt} = ${claimed.attempt} and ${job.doneAt} is null`)
      .returning({ id: job.id })
    if (settled.length === 0) throw new Overtaken()
    return outcome
  })
}

/**
 * Runs one claimed job. What fails is left to its lease: it runs out, the job is claimed again, and what
 * had been committed is found by its key.
 *
 * @returns when it is due again; null if it is done, or another's
 */
export async function runJob(claimed: Claim, handlers: Record<string, Handler>, now: () => Date): Promise<Date | null> {
  let settledInside = false
  const job: ClaimedJob = {
    ...claimed,
    settle: async (work) => {
      const outcome = await settle(claimed, work, now)
      settledInside = true
      crashPoint('settled')
      return outcome
    },
  }
  try {
    const outcome = await handlers[claimed.kind]!(job, now)
    if (!settledInside) await settle(claimed, async () => outcome, now)
    return outcome.done ? null : outcome.dueAt
  }
  catch (error) {
    if (!(error instanceof Overtaken)) log.error({ err: error, job: claimed.id }, 'a job failed and is tried again')
    return null
  }
}

/** Runs jobs as they come due, until stopped. */
export function startOutbox(handlers: Record<string, Handler>, now: () => Date = () => new Date()): () => Promise<void> {
  const running = new Set<Promise<void>>()
  const timers = new Set<NodeJS.Timeout>()
  let stopped = false
  let claiming = false
  let again = false

  const turn = async () => {
    again = true
    if (claiming) return
    claiming = true
    try {
      while (again && !stopped) {
        again = false
        const room = AT_ONCE - running.size
        for (const claimed of room > 0 ? await claimJobs(now(), room) : []) run(claimed)
      }
    }
    catch (error) {
      log.error({ err: error }, 'jobs could not be claimed')
    }
    finally {
      claiming = false
    }
  }

  const run = (claimed: Claim) => {
    const work = runJob(claimed, handlers, now).then((dueAt) => {
      running.delete(work)
      if (dueAt) turnAt(dueAt)
      void turn()
    })
    running.add(work)
  }

  const turnAt = (dueAt: Date) => {
    const timer = setTimeout(() => {
      timers.delete(timer)
      void turn()
    }, Math.max(0, Math.min(dueAt.getTime() - now().getTime(), 60_000)))
    timers.add(timer.unref())
  }

  const ticking = setInterval(turn, 1_000).unref()
  alarm.on('due', turnAt)
  void turn()

  return async () => {
    stopped = true
    clearInterval(ticking)
    for (const timer of timers) clearTimeout(timer)
    alarm.off('due', turnAt)
    await Promise.all(running)
  }
}
