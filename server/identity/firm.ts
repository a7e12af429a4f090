import { inArray } from 'drizzle-orm'
import { read } from '../db/door'
import { firm, team } from '../db/schema'

/** What the firm is called, and in which country it is. */
export async function firmHome(): Promise<{ name: string, country: string }> {
  const [found] = await read(database => database.select({ name: firm.name, country: firm.country }).from(firm))
  return found ?? { name: '', country: 'US' }
}

export const firmName = async (): Promise<string> => (await firmHome()).name

/** Teams by id, with what they are called. */
export async function teamsNamed(ids: string[]): Promise<{ id: string, name: string }[]> {
  return ids.length === 0 ? [] : read(database => database.select().from(team).where(inArray(team.id, ids)).orderBy(team.name))
}
