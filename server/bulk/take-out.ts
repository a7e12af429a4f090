import { and, eq, inArray, sql } from 'drizzle-orm'
import type { TakeOutForm } from '~~/shared/schemas/bulk-text'
import { tx } from '../db/door'
import { bulkPerson } from '../db/schema'
import { badInput, conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { isDuplicate } from '../db/failures'
import { announceBulk, mustHoldBulk, type StoredBulk } from './one'
import { goOn, mayTextSoMany } from './run'

/**
 * Takes somebody out, or all whom we have texted lately; or puts them back, where the check has found that they can get it.
 *
 * @returns how many were
 * @throws Problem 409 where their number has gone to somebody else meanwhile, or all is done
 */
export async function takeOut(asker: SignedIn, id: string, { recordId, lately, out }: TakeOutForm, now: Date): Promise<{ people: number }> {
  if (!recordId && !lately) throw badInput({ recordId: 'Say who.' })
  return tx(async (database) => {
    const bulk = await mustHoldBulk(asker, id)
    if (bulk.state === 'done') throw conflict('not-now', 'It is done', 'Everybody has had their turn.')
    try {
      const changed = await database.update(bulkPerson)
        .set({ standing: out ? 'taken-out' : sql`case when ${bulkPerson.reason} is null then 'ready' else 'left-out' end`, changedAt: now })
        .where(and(
          eq(bulkPerson.bulkId, id),
          out ? inArray(bulkPerson.standing, ['ready', 'left-out']) : eq(bulkPerson.standing, 'taken-out'),
          recordId ? eq(bulkPerson.recordId, recordId) : and(eq(bulkPerson.lately, true), eq(bulkPerson.standing, out ? 'ready' : 'taken-out')),
        ))
        .returning({ id: bulkPerson.id })
      if (changed.length > 0) announceBulk(bulk)
      if (!out && bulk.runs) await comesBack(asker, bulk, now)
      return { people: changed.length }
    }
    catch (error) {
      if (!isDuplicate(error, 'bulk_person_number')) throw error
      throw conflict('same-number', 'Same number', 'Somebody else in this bulk text, or in another audience of the same occasion, has the same number and gets a text. Take them out first.')
    }
  })
}

/** Whoever comes back once it has been started makes it larger, and has no place in its plan yet. */
async function comesBack(asker: SignedIn, bulk: StoredBulk, now: Date): Promise<void> {
  const [counted] = await tx(database => database.select({ people: sql<number>`count(*)::int` }).from(bulkPerson)
    .where(and(eq(bulkPerson.bulkId, bulk.id), inArray(bulkPerson.standing, ['ready', 'texted']))))
  await mayTextSoMany(asker, counted?.people ?? 0)
  if (bulk.state === 'running') await goOn(bulk, asker.zone, now)
}
