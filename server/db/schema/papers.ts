import { check, index, integer, jsonb, pgTable, smallint, text, unique } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import { PAPERS_STATES, type Papers } from '../../../core/papers/papers'
import { bytes, id, instant, knownValues } from '../columns'
import { colleague } from './identity'

/** What carriers ask the firm, written once: one row. */
export const firmPapers = pgTable('firm_papers', {
  id: smallint('id').primaryKey().default(1),
  papers: jsonb('papers').$type<Papers>().notNull(),
  /** Counts its changes. */
  version: integer('version').notNull().default(1),
  changedBy: id('changed_by').notNull().references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
})

/** What goes with them: an extract of the register, a picture of the form on which people agree. */
export const paperFile = pgTable('paper_file', {
  id: id('id').primaryKey(),
  name: text('name').notNull(),
  type: text('type').notNull(),
  size: integer('size').notNull(),
  bytes: bytes('bytes').notNull(),
  addedBy: id('added_by').notNull().references(() => colleague.id),
  addedAt: instant('added_at').notNull(),
})

/** Papers as they lie with a carrier, for one country. */
export const registration = pgTable('registration', {
  id: id('id').primaryKey(),
  carrier: text('carrier').notNull(),
  country: text('country').notNull(),
  state: text('state', { enum: PAPERS_STATES }).notNull(),
  /** As they were handed in last. */
  papers: jsonb('papers').$type<Papers>().notNull(),
  /** Under which the carrier knows them; null where it has said none. */
  ref: text('ref'),
  handedAt: instant('handed_at').notNull(),
  /** When it answered what was handed in last; null: not yet. */
  answeredAt: instant('answered_at'),
  /** In how many days it usually answers. */
  leastDays: smallint('least_days').notNull(),
  mostDays: smallint('most_days').notNull(),
}, table => [
  ...knownValues('registration', table),
  unique('registration_once').on(table.carrier, table.country),
  check('registration_days', sql`0 <= ${table.leastDays} and ${table.leastDays} <= ${table.mostDays}`),
  check('registration_answered', sql`(${table.state} = 'handed-in') = (${table.answeredAt} is null)`),
])

/** What happened to them, step by step. */
export const registrationStep = pgTable('registration_step', {
  id: id('id').primaryKey(),
  registrationId: id('registration_id').notNull().references(() => registration.id),
  at: instant('at').notNull(),
  kind: text('kind', { enum: PAPERS_STATES }).notNull(),
  /** What was asked back, or said otherwise. */
  words: text('words').notNull(),
  /** Who handed in, or wrote down what the carrier said; null where it said so itself. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  /** By which the carrier's own word counts once. */
  toldId: text('told_id').unique(),
}, table => [...knownValues('registration_step', table), index('registration_step_of').on(table.registrationId, table.at)])
