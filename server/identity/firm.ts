import { tx } from '../db/door'
import { firm } from '../db/schema'

export async function firmName(): Promise<string> {
  const [found] = await tx(database => database.select({ name: firm.name }).from(firm))
  return found?.name ?? ''
}
