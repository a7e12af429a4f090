import { sql } from 'drizzle-orm'
import { index, integer, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core'
import { PASS_REASONS, ROUND_STATES, STANDINGS } from '../../../core/call/round'
import { MODULES } from '../../../shared/modules'
import { ROUND_ORDERS } from '../../../shared/rounds'
import { id, instant, knownValues } from '../columns'
import { call } from './calling'
import { colleague, team } from './identity'
import { record } from './records'

/** A list of people who are called one after the other, by one or several. */
export const callRound = pgTable('call_round', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  module: text('module', { enum: MODULES }).notNull(),
  /** Who works it: a team, or only who has made it. */
  teamId: id('team_id').references(() => team.id),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  state: text('state', { enum: ROUND_STATES }).notNull().default('open'),
  order: text('order', { enum: ROUND_ORDERS }).notNull(),
  /** How long after a disposition the next is dialled by itself; null: by key. */
  pauseSeconds: integer('pause_seconds'),
  /** Nobody is called who was called within so many hours. */
  notWithinHours: integer('not_within_hours').notNull(),
}, table => [...knownValues('call_round', table), index('call_round_made').on(table.madeAt)])

/** Somebody in a round, and where they stand there: core/call/round says what may happen to them. */
export const roundPerson = pgTable('round_person', {
  roundId: id('round_id').notNull().references(() => callRound.id, { onDelete: 'cascade' }),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  position: integer('position').notNull(),
  turn: integer('turn').notNull().default(0),
  /** The zones in which they may be, joined by spaces: for the order by local time. */
  zones: text('zones').notNull(),
  /** The places in which they may be, for rules that hold by place, joined by spaces. */
  places: text('places').notNull().default(''),
  state: text('state', { enum: STANDINGS }).notNull().default('waiting'),
  colleagueId: id('colleague_id').references(() => colleague.id),
  heldUntil: instant('held_until'),
  reason: text('reason', { enum: PASS_REASONS }),
  notBefore: instant('not_before'),
  /** The last call of this round with them, and its number. */
  callId: id('call_id').references(() => call.id),
  number: text('number'),
  changedAt: instant('changed_at'),
}, table => [
  primaryKey({ columns: [table.roundId, table.recordId] }),
  ...knownValues('round_person', table),
  index('round_person_due').on(table.roundId, table.turn, table.position).where(sql`${table.state} in ('waiting', 'held')`),
  index('round_person_hand').on(table.colleagueId).where(sql`${table.state} = 'held'`),
  index('round_person_record').on(table.recordId),
  index('round_person_call').on(table.callId),
  // the same number on two records is still one telephone
  uniqueIndex('round_person_number').on(table.roundId, table.number).where(sql`${table.state} = 'called'`),
])

/** Who is on which round: one at a time each. */
export const roundColleague = pgTable('round_colleague', {
  roundId: id('round_id').notNull().references(() => callRound.id, { onDelete: 'cascade' }),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  joinedAt: instant('joined_at').notNull(),
  leftAt: instant('left_at'),
}, table => [
  primaryKey({ columns: [table.roundId, table.colleagueId] }),
  uniqueIndex('round_colleague_on').on(table.colleagueId).where(sql`${table.leftAt} is null`),
])
