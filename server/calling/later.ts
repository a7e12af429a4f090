import { v7 as uuid } from 'uuid'
import { tx } from '../db/door'
import { job } from '../db/schema'
import { wakeOutbox } from '../jobs/wake'

/** Something of a call that is to happen by itself at a time, once under its key. */
export async function later(kind: string, key: string, payload: Record<string, unknown>, dueAt: Date): Promise<void> {
  const name = `${kind} ${key}`
  await tx(database => database.insert(job).values({ id: uuid(), kind, key: name, payload, lane: name, orderAt: dueAt, dueAt }).onConflictDoNothing())
  wakeOutbox(dueAt)
}
