import { and, eq } from 'drizzle-orm'
import { tx } from '../db/door'
import { bulkText } from '../db/schema'
import { conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { makeBulk } from './make'
import { mustSeeBulk } from './one'

/**
 * The same text once more, to those who are meant today: whoever is in its group or list by now. It is a draft like any other, and
 * says how many came to its people and how many went. Sending the same again gives the first.
 */
export async function repeatBulk(asker: SignedIn, id: string, newId: string, now: Date): Promise<{ id: string }> {
  return tx(async (database) => {
    const bulk = await mustSeeBulk(asker, id)
    if (!bulk.whom || bulk.answersId) throw conflict('unknown-whom', 'It cannot be repeated', 'To whom it went is not known any more. Choose them in a list, and make a new one.')
    const { name, body, templateId, templateVersion, fillIns, answers, lineId, spread, numberWay, numberLabel, pictureIds } = bulk
    const { latelyDays, holdOut, occasion, place } = bulk
    await makeBulk(asker, { id: newId, name, besideId: null, ...bulk.whom }, now)
    const idsOf = async (which: string) =>
      (await database.select({ ids: bulkText.recordIds }).from(bulkText).where(eq(bulkText.id, which)))[0]?.ids ?? []
    const [before, today] = [new Set(await idsOf(id)), new Set(await idsOf(newId))]
    await database.update(bulkText)
      .set({
        // the occasion was another day: that is to be said anew
        body, templateId, templateVersion, fillIns, answers, lineId, spread, numberWay, numberLabel, pictureIds, latelyDays, holdOut,
        occasion, place,
        repeatsId: id,
        came: [...today].filter(one => !before.has(one)).length,
        gone: [...before].filter(one => !today.has(one)).length,
      })
      // making it twice leaves the first as it is by now
      .where(and(eq(bulkText.id, newId), eq(bulkText.madeBy, asker.id), eq(bulkText.body, '')))
    return { id: newId }
  })
}
