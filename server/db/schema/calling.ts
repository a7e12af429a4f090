import { sql } from 'drizzle-orm'
import { check, index, integer, jsonb, pgTable, primaryKey, smallint, text, uniqueIndex, type AnyPgColumn } from 'drizzle-orm/pg-core'
import { ANSWERED_BY, CALL_ENDS, SIDES, type Switch } from '../../../core/call/facts'
import { FAMILIES } from '../../../core/call/family'
import { TRANSFER_STATES, TRANSFER_WAYS } from '../../../core/call/transfer'
import { EFFECT_STATES, type Effect } from '../../../core/effects/effects'
import { DISPOSITION_COLOURS, type SpokenWords } from '../../../shared/calling'
import { PERSON_MODULES } from '../../../shared/modules'
import { DIRECTIONS, id, instant, knownValues } from '../columns'
import { colleague } from './identity'
import { record } from './records'
import { callRound } from './rounds'
import { line } from './texting'
import { activity } from './activity'

/** What the key means that ends a call, for one module, and what it sets off. */
export const disposition = pgTable('disposition', {
  id: id().primaryKey(),
  module: text('module', { enum: PERSON_MODULES }).notNull(),
  name: text('name').notNull(),
  family: text('family', { enum: FAMILIES }).notNull(),
  /** The key, a letter. */
  letter: text('letter').notNull(),
  colour: text('colour', { enum: DISPOSITION_COLOURS }).notNull().default('accent'),
  position: integer('position').notNull(),
  effects: jsonb('effects').$type<Effect[]>().notNull().default([]),
  /** For one purpose: calls over this line, or of this round. Both null: for all of the module. */
  onlyLineId: id('only_line_id').references(() => line.id),
  onlyRoundId: id('only_round_id').references((): AnyPgColumn => callRound.id),
  retiredAt: instant('retired_at'),
}, table => [
  ...knownValues('disposition', table),
  check('disposition_one_purpose', sql`${table.onlyLineId} is null or ${table.onlyRoundId} is null`),
])

/** One call, in either direction. Its notes are the content of its activity. */
export const call = pgTable('call', {
  id: id().primaryKey(),
  direction: text('direction', { enum: DIRECTIONS }).notNull(),
  lineId: id('line_id').notNull().references(() => line.id),
  remote: text('remote').notNull(),
  /** The record with which it is about; null for a number on none. */
  recordId: id('record_id').references(() => record.id, { onDelete: 'set null' }),
  /** With whom it rings first, and until when; null: with everybody at once. */
  ringsFirst: id('rings_first').references(() => colleague.id),
  ringsFirstUntil: instant('rings_first_until'),
  /** Who calls, or has answered. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  activityId: id('activity_id').notNull().unique().references(() => activity.id),
  exchange: text('exchange').notNull(),
  exchangeRef: text('exchange_ref'),
  madeAt: instant('made_at').notNull(),
  ownRingingAt: instant('own_ringing_at'),
  ownAnsweredAt: instant('own_answered_at'),
  ringingAt: instant('ringing_at'),
  answeredAt: instant('answered_at'),
  answeredBy: text('answered_by', { enum: ANSWERED_BY }),
  /** What was left on a mailbox, as it was then, and from when until when. */
  spoken: jsonb('spoken').$type<SpokenWords>(),
  leavingAt: instant('leaving_at'),
  leftAt: instant('left_at'),
  endedAt: instant('ended_at'),
  endWhy: text('end_why', { enum: CALL_ENDS }),
  endSide: text('end_side', { enum: SIDES }),
  switches: jsonb('switches').$type<Switch[]>().notNull().default([]),
  dispositionId: id('disposition_id').references(() => disposition.id),
  disposedAt: instant('disposed_at'),
  /** How good it was, from 1 to 5; null where nobody has said. */
  rating: smallint('rating'),
  /** "No disposition": a colleague has put the call away without one. */
  putAwayAt: instant('put_away_at'),
}, table => [
  index('call_remote').on(table.remote, table.madeAt),
  index('call_ref').on(table.exchange, table.exchangeRef),
  ...knownValues('call', table),
  index('call_record').on(table.recordId).where(sql`${table.recordId} is not null`),
  // who is on a call, and calls of which nobody tells any more
  index('call_on').on(table.colleagueId, table.madeAt).where(sql`${table.endedAt} is null`),
  index('call_forgotten').on(table.madeAt).where(sql`${table.endedAt} is null`),
  index('call_missed').on(table.madeAt).where(sql`${table.direction} = 'in' and ${table.colleagueId} is null`),
  index('call_open').on(table.colleagueId, table.madeAt).where(sql`${table.disposedAt} is null and ${table.putAwayAt} is null`),
])

/** With whom a call that comes in rings no more: who has declined it leaves it to the others. */
export const callDeclined = pgTable('call_declined', {
  callId: id('call_id').notNull().references(() => call.id, { onDelete: 'cascade' }),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
}, table => [primaryKey({ columns: [table.callId, table.colleagueId] })])

/** A call that is handed to a colleague: core/call/transfer says what may happen to it. */
export const callTransfer = pgTable('call_transfer', {
  id: id().primaryKey(),
  callId: id('call_id').notNull().references(() => call.id),
  fromId: id('from_id').notNull().references(() => colleague.id),
  toId: id('to_id').notNull().references(() => colleague.id),
  way: text('way', { enum: TRANSFER_WAYS }).notNull(),
  state: text('state', { enum: TRANSFER_STATES }).notNull(),
  askedAt: instant('asked_at').notNull(),
  takenAt: instant('taken_at'),
  endedAt: instant('ended_at'),
}, table => [
  ...knownValues('call_transfer', table),
  index('call_transfer_of').on(table.callId, table.askedAt),
  uniqueIndex('call_transfer_open').on(table.callId).where(sql`${table.endedAt} is null`),
  index('call_transfer_to').on(table.toId).where(sql`${table.endedAt} is null`),
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
  state: text('state', { enum: EFFECT_STATES }).notNull(),
  /** Why it failed, or why it stays, in plain words. */
  reason: text('reason'),
  /** What it needs to be taken back. */
  kept: jsonb('kept').$type<object>().notNull().default({}),
}, table => [...knownValues('call_effect', table), primaryKey({ columns: [table.callId, table.attempt, table.position] })])

/** A colleague's own telephones, which ring first where they call with these. */
export const ownPhone = pgTable('own_phone', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id, { onDelete: 'cascade' }),
  e164: text('e164').notNull(),
  label: text('label').notNull(),
  position: smallint('position').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.e164] })])

/** What an exchange told us, once each by its own id. */
export const callEvent = pgTable('call_event', {
  exchange: text('exchange').notNull(),
  id: text('id').notNull(),
  receivedAt: instant('received_at').notNull(),
}, table => [primaryKey({ columns: [table.exchange, table.id] })])
