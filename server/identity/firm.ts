import { inArray } from 'drizzle-orm'
import { read } from '../db/door'
import { firm, team } from '../db/schema'

export async function firmName(): Promise<string> {
  const [found] = await read(database => database.select({ name: firm.name }).from(firm))
  return found?.name ?? ''
}

/** Teams by id, with what they are called. */
export async function teamsNamed(ids: string[]): Promise<{ id: string, name: string }[]> {
  return ids.length === 0 ? [] : read(database => database.select().from(team).where(inArray(team.id, ids)).orderBy(team.name))
}
