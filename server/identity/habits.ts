import { eq } from 'drizzle-orm'
import type { ChosenFormat } from '~~/core/hours/format'
import type { ToldForm } from '~~/shared/schemas/sign-in'
import { read, tx } from '../db/door'
import { colleague } from '../db/schema'
import { badInput } from '../http/problem'

/** How somebody likes to work: nothing here decides what they may see or do. */
export interface Habits {
  /** Whether letters and signs by themselves are keys. */
  singleKeys: boolean
  /** How they are told of what comes in. */
  told: ToldForm
  /** How they read times and days; null is as their browser does. */
  format: ChosenFormat
}

export async function readHabits(colleagueId: string): Promise<Habits> {
  const [found] = await read(database => database.select().from(colleague).where(eq(colleague.id, colleagueId)))
  return {
    singleKeys: found?.singleKeys ?? true,
    told: {
      chimes: found?.chimes ?? true,
      notifies: found?.notifies ?? false,
      knocksOff: found?.knocksOff ?? [],
      standInId: found?.standInId ?? null,
      mailMinutes: found?.mailMinutes ?? null,
    },
    format: { hours: found?.clockHours ?? null, dayFirst: found?.dayFirst ?? null },
  }
}

/** @throws Problem 422 for a stand-in who is nobody else */
export async function setHabits(colleagueId: string, { singleKeys, told, format }: Partial<Habits>): Promise<void> {
  if (told?.standInId === colleagueId) throw badInput({ standInId: 'Choose somebody else: you have not come yourself.' })
  await tx(database => database.update(colleague).set({
    singleKeys,
    ...told,
    ...format && { clockHours: format.hours, dayFirst: format.dayFirst },
  }).where(eq(colleague.id, colleagueId)))
}
