import { asc } from 'drizzle-orm'
import { can, type Asker } from '~~/shared/permissions'
import type { LineChoice } from '~~/shared/composer'
import { carrierRegistered } from '../carriers/registry'
import { tx } from '../db/door'
import { carrierPrice, line, teamMember } from '../db/schema'

export type Line = typeof line.$inferSelect
/** What of a line a text needs: not how it rings. */
export type TextLine = Omit<Line, 'state' | 'turnsAt' | 'rentMicros' | 'rentCurrency' | 'toldAt' | 'records' | 'ownerFirst' | 'ringOrder' | 'takeOrder' | 'tookLast' | 'greeting' | 'busyGreeting' | 'ringSound' | 'ringSeconds' | 'hours' | 'textsAMinute' | 'textsADay' | 'newSince' | 'standInId'>

export const lineBelongs = ({ colleagueId, teamId }: Pick<Line, 'colleagueId' | 'teamId'>) => ({ ownerId: colleagueId, teamId })

/** What a text costs within a country, and the most that its carrier takes. */
export interface Price {
  microsPerPart: number
  currency: string
  mostParts: number
  microsPerPicture: number | null
  mostPictures: number
  mostPictureBytes: number
}

/** A number of one country texts only within that country (common practice). */
export const mayText = (line: Pick<Line, 'country'>, country: string) => line.country === country

/**
 * The lines that somebody answers, with prices and how many colleagues answer too.
 *
 * @param ended also those that have ended: over these was spoken too
 */
export async function linesOf(asker: Asker, { ended = false } = {}): Promise<LineChoice[]> {
  return tx(async (database) => {
    const lines = (await database.select().from(line).orderBy(asc(line.name)))
      .filter(one => (ended || one.state !== 'ended') && can(asker, 'line.answer', lineBelongs(one)))
    const members = await database.select().from(teamMember)
    const prices = await database.select().from(carrierPrice)
    return lines.map(one => ({
      id: one.id,
      name: one.name,
      e164: one.e164,
      country: one.country,
      active: one.active,
      private: one.private,
      languages: one.languages,
      mine: one.colleagueId === asker.id,
      answeredBy: one.colleagueId ? 1 : members.filter(member => member.teamId === one.teamId).length,
      standIn: lines.find(({ id }) => id === one.standInId)?.name ?? null,
      away: carrierRegistered(one.carrier)?.state?.()?.is === 'away',
      price: prices.find(price => price.carrier === one.carrier && price.country === one.country) ?? null,
    }))
  })
}
