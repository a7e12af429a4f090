import { sql } from 'drizzle-orm'
import { boolean, index, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import { ACTIVITY_KINDS } from '../../../core/timeline/kinds'
import { MODULES } from '../../../shared/modules'
import { id, instant, knownValues } from '../columns'
import { colleague } from './identity'
import { record } from './records'

/** What happened. Only added to: a trigger forbids changes. No personal words in here. */
export const activity = pgTable('activity', {
  id: id().primaryKey(),
  at: instant('at').notNull(),
  kind: text('kind', { enum: ACTIVITY_KINDS }).notNull(),
  colleagueId: id('colleague_id').references(() => colleague.id),
  messageId: id('message_id'),
  data: jsonb('data').$type<Record<string, unknown>>().notNull().default({}),
}, table => knownValues('activity', table))

/** The words of an entry, apart, so that they can be erased on a person's request. */
export const activityContent = pgTable('activity_content', {
  activityId: id('activity_id').primaryKey().references(() => activity.id),
  words: text('words'),
  data: jsonb('data').$type<Record<string, unknown>>(),
}, table => [index('activity_content_words').using('gin', sql`to_tsvector('simple', coalesce(${table.words}, ''))`)])

/**
 * When somebody was last in touch with a record. Apart from the record: every text writes it, and would write anew all
 * indexes by which records are found.
 */
export const contact = pgTable('contact', {
  recordId: id('record_id').primaryKey().references(() => record.id, { onDelete: 'cascade' }),
  /** The record's, so that lists of a module are walked by the index. */
  module: text('module', { enum: MODULES }).notNull(),
  at: instant('at').notNull(),
}, table => [...knownValues('contact', table), index('contact_at').on(table.module, table.at, table.recordId)])

/** On which records an entry shows. One index range is one timeline. */
export const activityOnRecord = pgTable('activity_on_record', {
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  at: instant('at').notNull(),
  activityId: id('activity_id').notNull().references(() => activity.id),
  /** The record it came from, where it shows here because of a link. */
  viaRecordId: id('via_record_id'),
  /** Set for what went over a private line: only those who answer it see the entry. */
  privateLineId: id('private_line_id'),
  /** Set where it was with other records and came here along with a number: the line it went over. See server/reading/entries. */
  alongLineId: id('along_line_id'),
  /** A colleague has shown it there, and may take it off again. */
  byHand: boolean('by_hand').notNull().default(false),
}, table => [
  primaryKey({ columns: [table.recordId, table.at, table.activityId] }),
  index('activity_on_record_activity').on(table.activityId),
])
