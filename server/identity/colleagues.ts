import { sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { colleague } from '../db/schema'

/** Everybody to whom something can be given, by name. */
export async function colleagues(): Promise<{ id: string, name: string }[]> {
  return tx(database => database.select({ id: colleague.id, name: colleague.name }).from(colleague).orderBy(sql`${colleague.name} collate "und-x-icu"`))
}
