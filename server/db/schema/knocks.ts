import { sql } from 'drizzle-orm'
import { index, integer, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core'
import { KNOCK_KINDS, KNOCK_STEPS } from '../../../core/knock/kinds'
import { id, instant, knownValues } from '../columns'
import { colleague } from './identity'
import { task } from './tasks'
import { conversation } from './texting'

/** Something that calls for action at once, in a conversation or by a task. Whether it still does is to be seen there. */
export const knock = pgTable('knock', {
  id: id().primaryKey(),
  kind: text('kind', { enum: KNOCK_KINDS }).notNull(),
  conversationId: id('conversation_id').references(() => conversation.id, { onDelete: 'cascade' }),
  taskId: id('task_id').references(() => task.id, { onDelete: 'cascade' }),
  /** One of the two: of each kind one is open about it, into which repeats fold. */
  aboutId: id('about_id').notNull(),
  /** What the clock brings up it brings up once for each. */
  once: text('once').unique(),
  /** What was said last. */
  words: text('words').notNull().default(''),
  /** How often it has happened by now, and when last. */
  times: integer('times').notNull().default(1),
  at: instant('at').notNull(),
  /** With whom it knocks now, and when it goes on to others. */
  step: text('step', { enum: KNOCK_STEPS }).notNull(),
  goesOnAt: instant('goes_on_at'),
  takenBy: id('taken_by').references(() => colleague.id),
  /** When somebody took it, or when it had been settled otherwise. */
  endedAt: instant('ended_at'),
}, table => [
  ...knownValues('knock', table),
  uniqueIndex('knock_open').on(table.kind, table.aboutId).where(sql`${table.endedAt} is null`),
  index('knock_goes_on').on(table.goesOnAt).where(sql`${table.endedAt} is null`),
  index('knock_conversation').on(table.conversationId).where(sql`${table.conversationId} is not null`),
  index('knock_task').on(table.taskId).where(sql`${table.taskId} is not null`),
  index('knock_ended').on(table.endedAt).where(sql`${table.endedAt} is not null`),
])

/** With whom a knock is, since which step, and when they have seen it. */
export const knockFor = pgTable('knock_for', {
  knockId: id('knock_id').notNull().references(() => knock.id, { onDelete: 'cascade' }),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  step: text('step', { enum: KNOCK_STEPS }).notNull(),
  at: instant('at').notNull(),
  seenAt: instant('seen_at'),
}, table => [...knownValues('knock_for', table), primaryKey({ columns: [table.colleagueId, table.knockId] }), index('knock_for_knock').on(table.knockId)])
