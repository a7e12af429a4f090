import { and, eq } from 'drizzle-orm'
import { afterWord } from '~~/core/lines/life'
import type { Carrier, CarrierNumber } from '../carriers/port'
import { tx } from '../db/door'
import { line } from '../db/schema'
import { note } from '../identity/audit'
import { announce } from '../live/notices'

/** What a carrier says of a number. What a month costs is not said with every word. */
export type NumberWord = Pick<CarrierNumber, 'e164' | 'state' | 'until'> & Partial<Pick<CarrierNumber, 'rent'>>

/**
 * Heeds what a carrier says of one of its numbers, unless it has said something later already.
 *
 * @param at when it was said, or when it was asked
 * @returns the line of that number; null where it is none
 */
export async function heedNumber(carrier: string, { e164, state: told, until, rent }: NumberWord, at: Date): Promise<string | null> {
  return tx(async (database) => {
    const [found] = await database.select().from(line).where(and(eq(line.carrier, carrier), eq(line.e164, e164))).for('update')
    if (!found) return null
    if (found.toldAt && found.toldAt > at) return found.id
    const state = afterWord(found.state, told)
    await database.update(line)
      .set({ state, turnsAt: until, toldAt: at, ...rent && { rentMicros: rent.micros, rentCurrency: rent.currency } })
      .where(eq(line.id, found.id))
    if (state === found.state) return found.id
    await note('line-told', null, at, { lineId: found.id, name: found.name, from: found.state, to: state })
    announce({ kind: 'lines' }, 'line.edit', [{}])
    return found.id
  })
}

/** Asks a carrier what its numbers are, for words that never reached us. */
export async function heedNumbers({ name, rental }: Carrier, now: Date): Promise<void> {
  for (const word of await rental?.numbers() ?? []) await heedNumber(name, word, now)
}
