import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { CarrierEvent } from '../carriers/port'
import { tx } from '../db/door'
import { registration, registrationStep } from '../db/schema'
import { note } from '../identity/audit'
import { announce } from '../live/notices'

/**
 * Heeds what a carrier says of papers that it has: each word once, and none about papers that were handed in after it.
 *
 * @returns false for papers of which it is not written yet that they were handed in, so that this is to be told again
 */
export async function heedPapers(carrier: string, event: Extract<CarrierEvent, { kind: 'papers' }>, now: Date): Promise<boolean> {
  const { id: toldId, at, country, word, words } = event
  return tx(async (database) => {
    const [found] = await database.select().from(registration)
      .where(and(eq(registration.carrier, carrier), eq(registration.country, country))).for('update')
    if (!found) return false
    const first = await database.insert(registrationStep)
      .values({ id: uuid(), registrationId: found.id, at, kind: word, words, toldId: `${carrier} ${toldId}` })
      .onConflictDoNothing().returning({ id: registrationStep.id })
    if (first.length === 0 || at < found.handedAt) return true
    await database.update(registration).set({ state: word, answeredAt: at }).where(eq(registration.id, found.id))
    await note('papers-answered', null, now, { carrier, country, answer: word })
    announce({ kind: 'papers' }, 'carrier.edit', [{}])
    return true
  })
}
