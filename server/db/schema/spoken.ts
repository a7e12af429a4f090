import { index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { bytes, id, instant } from '../columns'
import { colleague, team } from './identity'

/** Words that were spoken once, to be left on the mailboxes of people who are not there. A WAV file. */
export const spokenMessage = pgTable('spoken_message', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  ownerId: id('owner_id').notNull().references(() => colleague.id),
  /** The team that may leave it too; null: only who has spoken it. */
  teamId: id('team_id').references(() => team.id),
  /** What is said, in writing: for the timeline, and for those who do not hear. */
  words: text('words').notNull(),
  ms: integer('ms').notNull(),
  /** Its shape for drawing, each from 0 to 1. */
  peaks: jsonb('peaks').$type<number[]>().notNull(),
  sound: bytes('sound').notNull(),
  madeAt: instant('made_at').notNull(),
  retiredAt: instant('retired_at'),
}, table => [index('spoken_message_owner').on(table.ownerId)])
