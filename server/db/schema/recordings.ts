import { index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { bytes, id, instant, knownValues } from '../columns'
import { call } from './calling'
import { colleague } from './identity'

/** What was recorded of a call: talk of both sides, or a message that was left on our mailbox. A WAV file. */
export const recording = pgTable('recording', {
  id: id().primaryKey(),
  callId: id('call_id').notNull().unique().references(() => call.id),
  of: text('of', { enum: ['call', 'message'] }).notNull(),
  ms: integer('ms').notNull(),
  /** Its shape for drawing, each from 0 to 1. */
  peaks: jsonb('peaks').$type<number[]>().notNull(),
  size: integer('size').notNull(),
  sound: bytes('sound').notNull(),
  at: instant('at').notNull(),
}, table => knownValues('recording', table))

/** A note at a moment of a recording. */
export const recordingMark = pgTable('recording_mark', {
  id: id().primaryKey(),
  recordingId: id('recording_id').notNull().references(() => recording.id),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  atMs: integer('at_ms').notNull(),
  words: text('words').notNull(),
  madeAt: instant('made_at').notNull(),
}, table => [index('recording_mark_of').on(table.recordingId, table.atMs)])
