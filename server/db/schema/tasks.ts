import { sql } from 'drizzle-orm'
import { index, pgTable, text } from 'drizzle-orm/pg-core'
import { id, instant, knownValues } from '../columns'
import { activity } from './activity'
import { call } from './calling'
import { colleague } from './identity'
import { record } from './records'

/** Something to do at a time: a task, or a call. */
export const task = pgTable('task', {
  id: id().primaryKey(),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  kind: text('kind', { enum: ['task', 'call-back'] }).notNull(),
  title: text('title').notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  /** The moment as it was meant, by the clock of a place. */
  wallTime: text('wall_time').notNull(),
  wallZone: text('wall_zone').notNull(),
  dueAt: instant('due_at').notNull(),
  doneAt: instant('done_at'),
  callId: id('call_id').references(() => call.id),
}, table => [
  ...knownValues('task', table),
  index('task_record').on(table.recordId, table.dueAt).where(sql`${table.doneAt} is null`),
  index('call_back_due').on(table.dueAt).where(sql`${table.doneAt} is null and ${table.kind} = 'call-back'`),
  index('task_due').on(table.colleagueId, table.dueAt).where(sql`${table.doneAt} is null`),
])

/** What a colleague made of what somebody asked for in a text: a task, or nothing. Once for each text. */
export const requestSettled = pgTable('request_settled', {
  activityId: id('activity_id').primaryKey().references(() => activity.id, { onDelete: 'cascade' }),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  at: instant('at').notNull(),
  taskId: id('task_id').references(() => task.id, { onDelete: 'set null' }),
})
