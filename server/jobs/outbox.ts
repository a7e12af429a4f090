import { sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { job } from '../db/schema'
import { log } from '../http/log'
import { crashPoint } from './crash-points'
import { alarm } from './wake'

/** A job as it was claimed. */
export interface Claim {
  id: string
  kind: string
  payload: Record<string, unknown>
  /** Counts claims; an older attempt's late result is ignored. */
  attempt: number
  orderAt: Date
}

/** What is done for a claimed job outside of any transaction; gives when it is due again, null if it is done. */
export type Work = () => Promise<Date | null>

/**
 * Begins jobs in the transaction that claims them. For each it gives the work that is left, or null
 * where nothing is, and the job is done.
 */
export type Handler = (claims: Claim[], now: () => Date) => Promise<(Work | null)[]>

/** Longer than any hand-over takes, so that only a dead claimant loses a lease. */
const LEASE_MS = 30_000
const AT_ONCE = 40

export class Overtaken extends Error {}

/**
 * Claims due jobs in one statement: the oldest of each lane, if nothing of that lane is in flight.
 * SKIP LOCKED lets several processes claim beside each other; the array makes sure that the inner query
 * runs once, and not once for each row of the table.
 */
async function claim(now: Date, limit: number): Promise<Claim[]> {
  const { rows } = await tx(database => database.execute<{ id: string, kind: string, payload: Record<string, unknown>, attempt: number, order_at: number }>(sql`
    update ${job} set attempt = attempt + 1, lease_until = ${at(now.getTime() + LEASE_MS)}
    where id = any(array(
      select j.id from ${job} j
      where j.done_at is null and j.due_at <= ${at(now)} and (j.lease_until is null or j.lease_until <= ${at(now)})
        and j.id = (
          select e.id from ${job} e
          where e.lane = j.lane and e.done_at is null
          order by e.order_at, e.id limit 1
        )
      order by j.due_at limit ${limit}
      for update skip locked
    ))
    returning id, kind, payload, attempt, ${milliseconds(sql`order_at`)} as order_at`))
  return rows.map(({ order_at, ...rest }) => ({ ...rest, orderAt: new Date(order_at) }))
}

/** After a restart nobody else holds the leases of an embedded database: they are taken back at once. */
export async function takeLeasesBack(): Promise<void> {
  await tx(database => database.update(job).set({ leaseUntil: null }).where(sql`${job.doneAt} is null`))
}

/** Claims what is due and begins it, in one transaction; gives the work that is left. */
export async function takeDue(handlers: Record<string, Handler>, now: () => Date, limit: number): Promise<{ works: Work[], claimed: number }> {
  return tx(async (database) => {
    const claims = await claim(now(), limit)
    const works: Work[] = []
    for (const kind of new Set(claims.map(one => one.kind))) {
      const ofKind = claims.filter(one => one.kind === kind)
      crashPoint('claimed')
      const begun = await handlers[kind]!(ofKind, now)
      const done = ofKind.filter((_, i) => begun[i] === null).map(one => one.id)
      if (done.length > 0) await database.execute(sql`update ${job} set done_at = ${at(now())}, lease_until = null where id = any(${`{${done.join(',')}}`}::uuid[])`)
      works.push(...begun.filter(work => work !== null))
    }
    return { works, claimed: claims.length }
  })
}

/** What becomes of a job that is not simply done: nothing more, or another try. */
export type Outcome = { dueAt: Date } | 'done'

/**
 * Commits a result together with the job's own outcome.
 *
 * @throws Overtaken if another claim has come between; then nothing is written
 */
export async function settle(claimed: Claim, now: Date, work: () => Promise<Outcome>): Promise<Date | null> {
  return tx(async (database) => {
    const outcome = await work()
    const dueAt = outcome === 'done' ? null : outcome.dueAt
    const settled = await database.update(job)
      .set({ leaseUntil: null, ...(dueAt ? { dueAt } : { doneAt: now }) })
      .where(sql`${job.id} = ${claimed.id} and ${job.attempt} = ${claimed.attempt}`)
      .returning({ id: job.id })
    if (settled.length === 0) throw new Overtaken()
    return dueAt
  })
}

/** Does the work; what fails is left to its lease, and what it had committed is found by its key. */
export async function perform(work: Work): Promise<Date | null> {
  try {
    return await work()
  }
  catch (error) {
    if (!(error instanceof Overtaken)) log.error({ err: error }, 'a job failed and is tried again')
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
        if (room <= 0) break
        const { works, claimed } = await takeDue(handlers, now, room)
        works.forEach(run)
        // jobs that were done at once may have kept others of their lane waiting
        if (claimed > works.length) again = true
      }
    }
    catch (error) {
      log.error({ err: error }, 'jobs could not be claimed')
    }
    finally {
      claiming = false
    }
  }

  const run = (work: Work) => {
    const done = perform(work).then((dueAt) => {
      running.delete(done)
      if (dueAt) turnAt(dueAt)
      void turn()
    })
    running.add(done)
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
