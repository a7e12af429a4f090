import { inArray } from 'drizzle-orm'
import { tx } from '../db/door'
import { firm, team } from '../db/schema'

export async function firmName(): Promise<string> {
  const [found] = await tx(database => database.select({ name: firm.name }).from(firm))
  return found?.name ?? ''
}

/** Teams by id, with what they are called. */
export async function teamsNamed(ids: string[]): Promise<{ id: string, name: string }[]> {
  return ids.length === 0 ? [] : tx(database => database.select().from(team).where(inArray(team.id, ids)).orderBy(team.name))
}
