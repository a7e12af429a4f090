import { sql } from 'drizzle-orm'
import { index, integer, jsonb, pgTable, primaryKey, smallint, text, uniqueIndex } from 'drizzle-orm/pg-core'
import type { AnsweredBy, CallEnd, Side, Switch } from '~~/core/call/facts'
import type { Family } from '~~/core/call/family'
import type { HandingState, HandingWay } from '~~/core/call/handing'
import type { Effect, EffectState } from '~~/core/effects/effects'
import type { DispositionColour, SpokenWords } from '~~/shared/calling'
import type { PersonModule } from '~~/shared/modules'
import { id, instant } from '../columns'
import { colleague } from './identity'
import { record } from './records'
import { line } from './texting'

/** What the key means that ends a call, for one module, and what it sets off. */
export const disposition = pgTable('disposition', {
  id: id().primaryKey(),
  module: text('module').$type<PersonModule>().notNull(),
  name: text('name').notNull(),
  family: text('family').$type<Family>().notNull(),
  /** The key, a letter. */
  letter: text('letter').notNull(),
  colour: text('colour').$type<DispositionColour>().notNull().default('mulberry'),
  position: integer('position').notNull(),
  effects: jsonb('effects').$type<Effect[]>().notNull().default([]),
  retiredAt: instant('retired_at'),
})

/** One call, in either direction. Its notes are the content of its activity. */
export const call = pgTable('call', {
  id: id().primaryKey(),
  direction: text('direction').$type<'out' | 'in'>().notNull(),
  lineId: id('line_id').notNull().references(() => line.id),
  other: text('other').notNull(),
  /** The record with which it is about; null for a number on none. */
  recordId: id('record_id'),
  /** With whom it rings first, and until when; null: with everybody at once. */
  ringsFirst: id('rings_first').references(() => colleague.id),
  ringsFirstUntil: instant('rings_first_until'),
  /** Who calls, or has answered. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  activityId: id('activity_id').notNull().unique(),
  exchange: text('exchange').notNull(),
  exchangeRef: text('exchange_ref'),
  madeAt: instant('made_at').notNull(),
  ownRingingAt: instant('own_ringing_at'),
  ownAnsweredAt: instant('own_answered_at'),
  ringingAt: instant('ringing_at'),
  answeredAt: instant('answered_at'),
  answeredBy: text('answered_by').$type<AnsweredBy>(),
  /** What was left on a mailbox, as it was then, and from when until when. */
  spoken: jsonb('spoken').$type<SpokenWords>(),
  leavingAt: instant('leaving_at'),
  leftAt: instant('left_at'),
  endedAt: instant('ended_at'),
  endWhy: text('end_why').$type<CallEnd>(),
  endSide: text('end_side').$type<Side>(),
  switches: jsonb('switches').$type<Switch[]>().notNull().default([]),
  dispositionId: id('disposition_id').references(() => disposition.id),
  disposedAt: instant('disposed_at'),
  /** How good it was, from 1 to 5; null where nobody has said. */
  rating: smallint('rating'),
  /** "No disposition": a colleague has put the call away without one. */
  putAwayAt: instant('put_away_at'),
}, table => [
  index('call_other').on(table.other, table.madeAt),
  index('call_ref').on(table.exchange, table.exchangeRef),
  index('call_open').on(table.colleagueId, table.madeAt).where(sql`${table.disposedAt} is null and ${table.putAwayAt} is null`),
])

/** A call that is handed to a colleague: core/call/handing says what may happen to it. */
export const callHanding = pgTable('call_handing', {
  id: id().primaryKey(),
  callId: id('call_id').notNull().references(() => call.id),
  fromId: id('from_id').notNull().references(() => colleague.id),
  toId: id('to_id').notNull().references(() => colleague.id),
  way: text('way').$type<HandingWay>().notNull(),
  state: text('state').$type<HandingState>().notNull(),
  askedAt: instant('asked_at').notNull(),
  takenAt: instant('taken_at'),
  endedAt: instant('ended_at'),
}, table => [
  index('call_handing_of').on(table.callId, table.askedAt),
  uniqueIndex('call_handing_open').on(table.callId).where(sql`${table.endedAt} is null`),
  index('call_handing_to').on(table.toId).where(sql`${table.endedAt} is null`),
])

/** What the disposition of a call did, part by part. */
export const callEffect = pgTable('call_effect', {
  callId: id('call_id').notNull().references(() => call.id),
  /** How often it had been said before how the call went: taking back and choosing anew is another attempt. */
  attempt: integer('attempt').notNull(),
  position: integer('position').notNull(),
  effect: jsonb('effect').$type<Effect>().notNull(),
  /** What it is, as it was shown before the key was pressed. */
  words: text('words').notNull(),
  state: text('state').$type<EffectState>().notNull(),
  /** Why it failed, or why it stays, in plain words. */
  reason: text('reason'),
  /** What it needs to be taken back. */
  kept: jsonb('kept').$type<object>().notNull().default({}),
}, table => [primaryKey({ columns: [table.callId, table.attempt, table.position] })])

/** Something to do at a time: a task, or a call. */
export const task = pgTable('task', {
  id: id().primaryKey(),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  kind: text('kind').$type<'task' | 'call-back'>().notNull(),
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
  index('task_record').on(table.recordId, table.dueAt).where(sql`${table.doneAt} is null`),
  index('task_due').on(table.colleagueId, table.dueAt).where(sql`${table.doneAt} is null`),
])

/** What an exchange told us, once each by its own id. */
export const callEvent = pgTable('call_event', {
  exchange: text('exchange').notNull(),
  id: text('id').notNull(),
  receivedAt: instant('received_at').notNull(),
}, table => [primaryKey({ columns: [table.exchange, table.id] })])
