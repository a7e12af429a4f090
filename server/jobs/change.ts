import { eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { job } from '../db/schema'
import { wakeOutbox } from './wake'

const keyOf = (kind: string, key: string) => eq(job.key, `${kind} ${key}`)

/** There is nothing left to do: what it was for has been taken back. */
export async function endJob(kind: string, key: string, now: Date): Promise<void> {
  await tx(database => database.update(job).set({ doneAt: now }).where(keyOf(kind, key)))
}

/** @param byTheClock the moment is one of the calendar, and stays where it is whatever the clock does */
export async function moveJob(kind: string, key: string, dueAt: Date, byTheClock: boolean): Promise<void> {
  await tx(database => database.update(job).set({ dueAt, orderAt: dueAt, byTheClock }).where(keyOf(kind, key)))
  wakeOutbox(dueAt)
}

/** A job that was done, or that broke too often, is due again. */
export async function openJobAgain(which: { kind: string, key: string } | { id: string }, now: Date): Promise<void> {
  const where = 'id' in which ? eq(job.id, which.id) : keyOf(which.kind, which.key)
  await tx(database => database.update(job)
    .set({ doneAt: null, deadAt: null, failures: 0, lastFailure: null, leaseUntil: null, dueAt: now, setAt: now, byTheClock: false })
    .where(where))
  wakeOutbox(now)
}
