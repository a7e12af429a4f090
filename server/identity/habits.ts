import { eq } from 'drizzle-orm'
import type { ChosenFormat } from '~~/core/hours/format'
import type { ToldForm } from '~~/shared/schemas/sign-in'
import { read, tx } from '../db/door'
import { colleague } from '../db/schema'

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
    told: { chimes: found?.chimes ?? true, notifies: found?.notifies ?? false },
    format: { hours: found?.clockHours ?? null, dayFirst: found?.dayFirst ?? null },
  }
}

export async function setHabits(colleagueId: string, { singleKeys, told, format }: Partial<Habits>): Promise<void> {
  await tx(database => database.update(colleague).set({
    singleKeys,
    ...told,
    ...format && { clockHours: format.hours, dayFirst: format.dayFirst },
  }).where(eq(colleague.id, colleagueId)))
}
