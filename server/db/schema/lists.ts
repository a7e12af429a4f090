import { index, integer, json, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import type { Conditions } from '~~/core/conditions/conditions'
import { BULK_STATES, type BulkChange } from '../../../shared/bulk'
import { MODULES } from '../../../shared/modules'
import { id, instant, knownValues } from '../columns'
import { colleague, team } from './identity'
import { record } from './records'

/** A list as somebody wants to see it again: its columns, its conditions, its order. */
export const view = pgTable('view', {
  id: id().primaryKey(),
  module: text('module', { enum: MODULES }).notNull(),
  name: text('name').notNull(),
  ownerId: id('owner_id').notNull().references(() => colleague.id),
  /** Whose it is besides; null for a view of one's own. */
  teamId: id('team_id').references(() => team.id),
  columns: text('columns').array().notNull(),
  /** Not jsonb, which would give it back with its keys in another order, and so not the same as it was kept. */
  conditions: json('conditions').$type<Conditions>().notNull(),
  sort: text('sort').notNull(),
  direction: text('direction', { enum: ['up', 'down'] }).notNull(),
  madeAt: instant('made_at').notNull(),
}, table => knownValues('view', table))

/** One change of many records, done piece by piece, which can be taken back. */
export const bulkChange = pgTable('bulk_change', {
  id: id().primaryKey(),
  module: text('module', { enum: MODULES }).notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  change: jsonb('change').$type<BulkChange>().notNull(),
  /** Chosen once, at the start: what the change itself makes match or not match any more does not count. */
  recordIds: uuid('record_ids').array().notNull(),
  state: text('state', { enum: BULK_STATES }).notNull(),
  /** How far it has come in the list of records, or how far back. */
  done: integer('done').notNull().default(0),
  changed: integer('changed').notNull().default(0),
  madeAt: instant('made_at').notNull(),
  endedAt: instant('ended_at'),
}, table => knownValues('bulk_change', table))

/** What each record was before. */
export const bulkChangeBefore = pgTable('bulk_change_before', {
  bulkId: id('bulk_id').notNull().references(() => bulkChange.id),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  before: jsonb('before').$type<Record<string, unknown>>().notNull(),
}, table => [primaryKey({ columns: [table.bulkId, table.recordId] }), index('bulk_change_before_record').on(table.recordId)])
