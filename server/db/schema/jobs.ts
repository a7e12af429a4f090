import { sql } from 'drizzle-orm'
import { boolean, index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { id, instant } from '../columns'

/**
 * The outbox: everything that happens later. A job is claimed by one conditional update that leaves a
 * lease and counts the attempt; whoever comes back with an older attempt is ignored.
 */
export const job = pgTable('job', {
  id: id().primaryKey(),
  kind: text('kind').notNull(),
  /** What it is about; one open job for each. */
  key: text('key').notNull().unique(),
  payload: jsonb('payload').$type<Record<string, unknown>>().notNull().default({}),
  /** Jobs of one lane run one at a time, in the order of `orderAt`. */
  lane: text('lane').notNull(),
  orderAt: instant('order_at').notNull(),
  dueAt: instant('due_at').notNull(),
  attempt: integer('attempt').notNull().default(0),
  leaseUntil: instant('lease_until'),
  /** When `dueAt` and `leaseUntil` were set: if that lies ahead, the clock has gone back since. */
  setAt: instant('set_at').notNull().default(sql`now()`),
  /** Due at a moment of the calendar, which stays where it is whatever the clock does. */
  byTheClock: boolean('by_the_clock').notNull().default(false),
  /** How often in a row it broke. A carrier that is away is no such case. */
  failures: integer('failures').notNull().default(0),
  /** What broke, without anybody's words. */
  lastFailure: text('last_failure'),
  /** It broke too often and waits for an admin. */
  deadAt: instant('dead_at'),
  doneAt: instant('done_at'),
}, table => [
  index('job_due').on(table.dueAt).where(sql`${table.doneAt} is null and ${table.deadAt} is null`),
  index('job_lane').on(table.lane, table.orderAt, table.id).where(sql`${table.doneAt} is null and ${table.deadAt} is null`),
  index('job_dead').on(table.deadAt).where(sql`${table.deadAt} is not null and ${table.doneAt} is null`),
])
