import { sql } from 'drizzle-orm'
import { tx, type Database } from './door'

/**
 * A transaction whose statements are planned anew with their values, tables read whole where that is
 * quicker: for what people put together themselves, such as a list with conditions, where a plan that
 * fits all values would fit none.
 */
export async function withOwnPlans<T>(work: (database: Database) => Promise<T>): Promise<T> {
  return tx(async (database) => {
    await database.execute(sql`select set_config('plan_cache_mode', 'force_custom_plan', true), set_config('enable_seqscan', 'on', true)`)
    return work(database)
  })
}

/**
 * The same for a few rows that indexes find one by one, among very many: no table is read whole, not even where the
 * database, which cannot know how few there are, would rather do so.
 */
export async function withLookUps<T>(work: (database: Database) => Promise<T>): Promise<T> {
  return withOwnPlans(async (database) => {
    await database.execute(sql`select set_config(name, 'off', true) from unnest(array['enable_seqscan', 'enable_hashjoin', 'enable_mergejoin']) name`)
    return work(database)
  })
}
