import { integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import { IMPORT_STATES, type ImportRules, type Outcome } from '../../../shared/import'
import { MODULES } from '../../../shared/modules'
import { id, instant, knownValues } from '../columns'
import { activity } from './activity'
import { colleague } from './identity'

/** A file that is brought in: its rows come in pieces, then become records piece by piece, and can be taken back. */
export const recordImport = pgTable('record_import', {
  id: id().primaryKey(),
  module: text('module', { enum: MODULES }).notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  fileName: text('file_name').notNull(),
  headings: text('headings').array().notNull(),
  /** What each column becomes, and how rows and duplicates are dealt with. */
  rules: jsonb('rules').$type<ImportRules>().notNull(),
  state: text('state', { enum: IMPORT_STATES }).notNull(),
  /** Rows of the file. */
  total: integer('total').notNull(),
  /** Pieces that are done, or taken back. */
  pieces: integer('pieces').notNull().default(0),
  done: integer('done').notNull().default(0),
  made: integer('made').notNull().default(0),
  joined: integer('joined').notNull().default(0),
  leftOut: integer('left_out').notNull().default(0),
  thereAlready: integer('there_already').notNull().default(0),
  refused: integer('refused').notNull().default(0),
  /** Of what was made, what others have worked with since and was therefore not taken back. */
  partly: integer('partly').notNull().default(0),
  keptBack: integer('kept_back').notNull().default(0),
  /** The one entry that tells on every record it made where it comes from. */
  activityId: id('activity_id').references(() => activity.id),
  startedAt: instant('started_at'),
  madeAt: instant('made_at').notNull(),
  endedAt: instant('ended_at'),
}, table => knownValues('record_import', table))

/** Rows of a file, as many as are written at once, with what became of each. */
export const importPiece = pgTable('import_piece', {
  importId: id('import_id').notNull().references(() => recordImport.id, { onDelete: 'cascade' }),
  place: integer('place').notNull(),
  rows: jsonb('rows').$type<string[][]>().notNull(),
  /** Null until the piece is done. */
  outcomes: jsonb('outcomes').$type<Outcome[]>(),
}, table => [primaryKey({ columns: [table.importId, table.place] })])

/** What rows said, so that the same row of the same file makes nothing twice. */
export const importSeen = pgTable('import_seen', {
  module: text('module', { enum: MODULES }).notNull(),
  /** What the row says, as the first half of its SHA-256: short, for there are many. */
  hash: id('hash').notNull(),
  importId: id('import_id').notNull().references(() => recordImport.id, { onDelete: 'cascade' }),
  /** How often it stood in the file so far, and how often something was made of it. */
  seen: integer('seen').notNull(),
  made: integer('made').notNull(),
}, table => [...knownValues('import_seen', table), primaryKey({ columns: [table.module, table.hash, table.importId] })])

/** What columns of a heading became the last time, by colleague. */
export const importMatching = pgTable('import_matching', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  module: text('module', { enum: MODULES }).notNull(),
  heading: text('heading').notNull(),
  /** Null for a column that was left out. */
  target: text('target'),
}, table => [...knownValues('import_matching', table), primaryKey({ columns: [table.colleagueId, table.module, table.heading] })])
