import { eq, inArray, sql } from 'drizzle-orm'
import type { CallsWith } from '~~/shared/calling'
import type { ToldForm } from '~~/shared/schemas/sign-in'
import { read, tx } from '../db/door'
import { colleague } from '../db/schema'

/** Everybody to whom something can be given, by name. */
export async function colleagues(): Promise<{ id: string, name: string }[]> {
  return read(database =>
    database
      .select({ id: colleague.id, name: colleague.name })
      .from(colleague)
      .orderBy(sql`${colleague.name} collate "und-x-icu"`),
  )
}

export async function firstNames(ids: string[]): Promise<Map<string, string>> {
  const rows = await read(database =>
    database.select({ id: colleague.id, firstName: colleague.firstName }).from(colleague).where(inArray(colleague.id, ids)),
  )
  return new Map(rows.map(({ id, firstName }) => [id, firstName]))
}

/** With what somebody calls: the browser, or telephones of their own. */
export async function setCallsWith(colleagueId: string, callsWith: CallsWith): Promise<void> {
  await tx(database => database.update(colleague).set({ callsWith }).where(eq(colleague.id, colleagueId)))
}

/** Whether letters and signs by themselves are keys for somebody. */
export async function readSingleKeys(colleagueId: string): Promise<boolean> {
  const [found] = await read(database =>
    database.select({ singleKeys: colleague.singleKeys }).from(colleague).where(eq(colleague.id, colleagueId)),
  )
  return found?.singleKeys ?? true
}

export async function setSingleKeys(colleagueId: string, singleKeys: boolean): Promise<void> {
  await tx(database => database.update(colleague).set({ singleKeys }).where(eq(colleague.id, colleagueId)))
}

/** How somebody is told of what comes in. */
export async function readTold(colleagueId: string): Promise<ToldForm> {
  const [found] = await read(database =>
    database.select({ chimes: colleague.chimes, notifies: colleague.notifies }).from(colleague).where(eq(colleague.id, colleagueId)),
  )
  return found ?? { chimes: true, notifies: false }
}

export async function setTold(colleagueId: string, told: ToldForm): Promise<void> {
  await tx(database => database.update(colleague).set(told).where(eq(colleague.id, colleagueId)))
}
