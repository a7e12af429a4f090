import { v7 as uuid } from 'uuid'
import { tx } from '../db/door'
import { job } from '../db/schema'
import { wakeOutbox } from './wake'

interface NewJob {
  kind: string
  /** What it is about: with one key it happens once. */
  key: string
  payload: Record<string, unknown>
  dueAt: Date
  /** Jobs of one lane run one at a time; left out, it has a lane of its own. */
  lane?: string
}

/** Puts a job into the outbox, in the transaction around. */
export async function addJob({ kind, key, payload, dueAt, lane = key }: NewJob): Promise<void> {
  await tx(database =>
    database
      .insert(job)
      .values({ id: uuid(), kind, key: `${kind} ${key}`, payload, lane: `${kind} ${lane}`, orderAt: dueAt, dueAt })
      .onConflictDoNothing(),
  )
  wakeOutbox(dueAt)
}
