import { sql, type SQL } from 'drizzle-orm'
import { job } from '../db/schema'

// Parts of statements for the way that every text goes, which writes its job and the rest in one.

/** @param jobs rows of an id, kind, key, payload, lane, the order in it, when due, when set, and whether by the clock */
export const jobMade = (jobs: SQL): SQL => sql`
  insert into ${job} (id, kind, key, payload, lane, order_at, due_at, set_at, by_the_clock) ${jobs}`

/**
 * Jobs that are done, unless another attempt has begun meanwhile.
 *
 * @param input the name of a query with `job_id`, `attempt` and `at`
 * @param returning what of it is given back, as `i`
 */
export const jobsDone = (input: SQL, returning: SQL): SQL => sql`
  update ${job} j set done_at = i.at, lease_until = null from ${input} i
  where j.id = i.job_id and j.attempt = i.attempt and j.id = any(array(select job_id from ${input})) returning ${returning}`
