import { eq, sql } from 'drizzle-orm'
import { lostAgainstAnother } from '../db/clash'
import { savepoint, tx } from '../db/door'
import { at, milliseconds, textArray, uuidArray } from '../db/instants'
import { job } from '../db/schema'
import { namedFailure } from '../log/failure'
import { log } from '../log/log'
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

/** What of a kind of job is to be known when one of them has broken too often, or is started again after that. */
export interface Ending {
  /** Tells whoever waits for it, in the transaction that gives it up. */
  gaveUp: (claim: Pick<Claim, 'payload'>, now: Date) => Promise<void>
  /** Puts back what `gaveUp` has changed, in the transaction that starts it again. */
  again: (claim: Pick<Claim, 'payload'>, now: Date) => Promise<void>
}

/** Who does the work of each kind of job, and what is to be told when one has broken. A kind that nobody does is left alone. */
export interface Workshop { handlers: Record<string, Handler>, endings?: Partial<Record<string, Ending>> }

/** Longer than any hand-over takes, so that only a dead claimant loses a lease. */
const LEASE_MS = 30_000
const AT_ONCE = 40

/** A job that broke so often in a row is left for an admin. */
export const MOST_FAILURES = 8

const LONGEST_PAUSE_MS = 600_000

/** How long a job waits after it broke for the nth time in a row: 2 s, 4 s, 8 s … 10 minutes. */
export const pauseAfter = (failures: number): number => Math.min(LONGEST_PAUSE_MS, 1_000 * 2 ** failures)

export class Overtaken extends Error {}

const OPEN = sql`done_at is null and dead_at is null`

/**
 * Claims due jobs in one statement: the oldest of each lane, if nothing of that lane is in flight.
 * SKIP LOCKED lets several processes claim beside each other; the array makes sure that the inner query
 * runs once, and not once for each row of the table.
 */
async function claim(kinds: string[], now: Date, limit: number): Promise<Claim[]> {
  const { rows } = await tx(database =>
    database.execute<{ id: string, kind: string, payload: Record<string, unknown>, attempt: number, order_at: number }>(sql`
    update ${job} set attempt = attempt + 1, lease_until = ${at(now.getTime() + LEASE_MS)}, set_at = ${at(now)}
    where id = any(array(
      select j.id from ${job} j
      where j.done_at is null and j.dead_at is null and j.due_at <= ${at(now)} and (j.lease_until is null or j.lease_until <= ${at(now)})
        and j.kind = any(${textArray(kinds)})
        and j.id = (
          select e.id from ${job} e
          where e.lane = j.lane and e.done_at is null and e.dead_at is null
          order by e.order_at, e.id limit 1
        )
      order by j.due_at limit ${limit}
      for update skip locked
    ))
    returning id, kind, payload, attempt, ${milliseconds(sql`order_at`)} as order_at`),
  )
  return rows.map(({ order_at, ...rest }) => ({ ...rest, orderAt: new Date(order_at) }))
}

/** After a restart nobody else holds the leases of an embedded database: they are taken back at once. */
export async function takeLeasesBack(): Promise<void> {
  await tx(database => database.execute(sql`update ${job} set lease_until = null where ${OPEN}`))
}

/**
 * The clock has gone back since some jobs were set: what was to be in a moment would be in an hour. They wait as long as
 * they were meant to, from now on; what is due at a moment of the calendar stays there.
 */
export async function followTheClock(now: Date): Promise<void> {
  await tx(database => database.execute(sql`
    update ${job} set due_at = case when by_the_clock then due_at else ${at(now)} + (due_at - set_at) end,
      lease_until = ${at(now)} + (lease_until - set_at), set_at = ${at(now)}
    where ${OPEN} and set_at > ${at(now.getTime() + 1_000)}`))
}

/** Claims what is due and begins it, in one transaction; gives the work that is left. */
export async function takeDue(
  { handlers, endings = {} }: Workshop,
  now: () => Date,
  limit: number,
): Promise<{ works: Work[], claimed: number }> {
  return tx(async (database) => {
    const claims = await claim(Object.keys(handlers), now(), limit)
    const works: Work[] = []
    for (const kind of new Set(claims.map(one => one.kind))) {
      const ofKind = claims.filter(one => one.kind === kind)
      crashPoint('claimed')
      const begun = await beginAll(handlers[kind]!, ofKind, now, endings[kind])
      const done = begun.filter(({ outcome }) => outcome === null).map(({ claim }) => claim.id)
      if (done.length > 0)
        await database.execute(sql`update ${job} set done_at = ${at(now())}, lease_until = null where id = any(${uuidArray(done)})`)
      for (const { claim, outcome } of begun) if (typeof outcome === 'function') works.push(guarded(claim, outcome, now, endings[kind]))
    }
    return { works, claimed: claims.length }
  })
}

interface Begun { claim: Claim, outcome: Work | null | 'broke' }

/** Begins them together; where that breaks, each alone, so that none fails for another's sake. */
async function beginAll(handler: Handler, claims: Claim[], now: () => Date, ending?: Ending): Promise<Begun[]> {
  try {
    const begun = await savepoint(() => handler(claims, now))
    return claims.map((claim, i) => ({ claim, outcome: begun[i] ?? null }))
  }
  catch (error) {
    if (lostAgainstAnother(error)) throw error
    if (claims.length > 1) return (await inOrder(claims, one => beginAll(handler, [one], now, ending))).flat()
    await stumble(claims[0]!, error, now(), ending)
    return [{ claim: claims[0]!, outcome: 'broke' }]
  }
}

async function inOrder<T, R>(items: T[], work: (item: T) => Promise<R>): Promise<R[]> {
  const results: R[] = []
  for (const item of items) results.push(await work(item))
  return results
}

/** Work that, if it breaks, is tried again after a pause. Where not even that can be written, its lease runs out. */
const guarded = (claim: Claim, work: Work, now: () => Date, ending?: Ending): Work => async () => {
  try {
    return await work()
  }
  catch (error) {
    if (error instanceof Overtaken) return null
    await stumble(claim, error, now(), ending).catch(failed =>
      log.error({ err: failed, job: claim.id, kind: claim.kind }, 'a job broke, and that could not be written down'),
    )
    return null
  }
}

/** A job broke: it waits, longer each time, and in the end for an admin. */
async function stumble(claim: Claim, error: unknown, now: Date, ending?: Ending): Promise<void> {
  log.error({ err: error, job: claim.id, kind: claim.kind }, 'a job broke')
  await tx(async (database) => {
    const [mine] = await database.select({ failures: job.failures }).from(job).where(sql`${job.id} = ${claim.id}::uuid
      and ${job.attempt} = ${claim.attempt} and ${OPEN}`).for('update')
    // somebody else has it by now
    if (!mine) return
    const failures = mine.failures + 1
    const dead = failures >= MOST_FAILURES
    await database
      .update(job)
      .set({
        failures,
        lastFailure: namedFailure(error),
        leaseUntil: null,
        setAt: now,
        dueAt: new Date(now.getTime() + pauseAfter(failures)),
        deadAt: dead ? now : null,
      })
      .where(eq(job.id, claim.id))
    if (!dead) return
    log.error({ job: claim.id, kind: claim.kind }, 'a job broke too often and waits for an admin')
    await ending?.gaveUp(claim, now)
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
      .set({ leaseUntil: null, failures: 0, ...(dueAt ? { dueAt, setAt: now } : { doneAt: now }) })
      .where(sql`${job.id} = ${claimed.id} and ${job.attempt} = ${claimed.attempt}`)
      .returning({ id: job.id })
    if (settled.length === 0) throw new Overtaken()
    return dueAt
  })
}

/**
 * Runs jobs as they come due, until stopped.
 *
 * @param mayWork whether anything may be begun now
 */
export function startOutbox(
  workshop: Workshop,
  now: () => Date = () => new Date(),
  mayWork: () => boolean = () => true,
): () => Promise<void> {
  const running = new Set<Promise<void>>()
  const timers = new Set<NodeJS.Timeout>()
  let stopped = false
  let claiming = false
  let again = false
  let seenAt = Infinity

  const turn = async () => {
    again = true
    if (claiming) return
    claiming = true
    try {
      while (again && !stopped && mayWork()) {
        again = false
        if (now().getTime() < seenAt) await followTheClock(now())
        seenAt = now().getTime()
        const room = AT_ONCE - running.size
        if (room <= 0) break
        const { works, claimed } = await takeDue(workshop, now, room)
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
    const done = work().then((dueAt) => {
      running.delete(done)
      if (dueAt) turnAt(dueAt)
      void turn()
    })
    running.add(done)
  }

  const turnAt = (dueAt: Date) => {
    const timer = setTimeout(
      () => {
        timers.delete(timer)
        void turn()
      },
      Math.max(0, Math.min(dueAt.getTime() - now().getTime(), 60_000)),
    )
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
