import { eq, sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { textArray } from '../db/instants'
import { numberState } from '../db/schema'

export type NumberState = typeof numberState.$inferSelect

/**
 * The state of a number, its row locked until the end of the transaction. A STOP and a hand-over both
 * take it, so that after a STOP has committed no hand-over begins.
 */
export async function lockNumber(e164: string): Promise<NumberState> {
  return tx(async (database) => {
    const [state] = await database.insert(numberState).values({ e164 })
      .onConflictDoUpdate({ target: numberState.e164, set: { e164: sql`excluded.e164` } })
      .returning()
    return state!
  })
}

/** The same for several numbers, always in the same order, so that no two wait for each other. */
export async function lockNumbers(e164s: string[]): Promise<Map<string, NumberState>> {
  const numbers = [...new Set(e164s)].sort()
  const states = await tx(async (database) => {
    const lock = () =>
      database
        .select()
        .from(numberState)
        .where(sql`${numberState.e164} = any(${textArray(numbers)})`)
        .orderBy(numberState.e164)
        .for('update')
    const known = await lock()
    if (known.length === numbers.length) return known
    await database.execute(sql`insert into ${numberState} (e164) select unnest(${textArray(numbers)}) on conflict (e164) do nothing`)
    return lock()
  })
  return new Map(states.map(state => [state.e164, state]))
}

/** Somebody wrote or called from a number: for an hour an answer is welcome, whatever the hour. */
export async function heardFrom(e164: string, at: Date): Promise<void> {
  await tx(database => database.update(numberState)
    .set({ lastHeardAt: sql`greatest(${numberState.lastHeardAt}, ${at.toISOString()}::timestamptz)` })
    .where(eq(numberState.e164, e164)))
}
