import { sql } from 'drizzle-orm'
import { bigint, boolean, check, index, pgTable, smallint, text, unique, uniqueIndex } from 'drizzle-orm/pg-core'
import { LIMIT_PERIODS } from '../../../core/money/limit'
import { ENTRY_KINDS } from '../../../shared/money'
import { id, instant, knownValues } from '../columns'
import { call } from './calling'
import { colleague, team } from './identity'
import { line, message } from './texting'

/** Whole millionths of a currency's unit. */
const micros = (name: string) => bigint(name, { mode: 'number' })

/** What is there in one currency: the sums of its entries and of what is held, kept with every one of them. */
export const moneyAccount = pgTable('money_account', {
  currency: text('currency').primaryKey(),
  /** Paid in advance: no text is promised that it does not cover. Otherwise there is a bill afterwards. */
  prepaid: boolean('prepaid').notNull().default(false),
  /** The sum of its entries, always. */
  balanceMicros: micros('balance_micros').notNull().default(0),
  /** The sum of what is held for texts that are on their way, always. */
  heldMicros: micros('held_micros').notNull().default(0),
  /** Admins are warned while what is left lasts for fewer days. */
  warnDays: smallint('warn_days').notNull().default(7),
})

/** The ledger: what came in and what was spent. Nothing in it is ever changed; what was wrong is put right by another entry. */
export const moneyEntry = pgTable('money_entry', {
  id: id().primaryKey(),
  at: instant('at').notNull(),
  kind: text('kind', { enum: ENTRY_KINDS }).notNull(),
  currency: text('currency').notNull(),
  /** What came in is above nothing, what was spent below. */
  micros: micros('micros').notNull(),
  /** Of a text and its corrections. */
  messageId: id('message_id').references(() => message.id),
  /** What it was for, where that was a call. */
  callId: id('call_id').references(() => call.id),
  /** Of a text or a call, or whose rent it is. */
  lineId: id('line_id').references(() => line.id),
  /** Whose text it was; null where Plauder wrote by itself. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  /** The admin who entered it; null where a carrier has told it. */
  enteredBy: id('entered_by').references(() => colleague.id),
  words: text('words').notNull().default(''),
}, table => [
  ...knownValues('money_entry', table),
  index('money_entry_at').on(table.at, table.id),
  index('money_entry_colleague').on(table.colleagueId, table.at),
  index('money_entry_line').on(table.lineId, table.at),
  uniqueIndex('money_entry_text_once').on(table.messageId).where(sql`${table.kind} = 'text'`),
  uniqueIndex('money_entry_call_once').on(table.callId).where(sql`${table.kind} = 'call'`),
  index('money_entry_correction').on(table.messageId).where(sql`${table.kind} = 'correction'`),
])

/** What is promised to a text from when it is queued until it is known what it costs, or that it costs nothing. */
export const moneyHold = pgTable('money_hold', {
  messageId: id('message_id').primaryKey().references(() => message.id),
  currency: text('currency').notNull().references(() => moneyAccount.currency),
  micros: micros('micros').notNull(),
  colleagueId: id('colleague_id').references(() => colleague.id),
  lineId: id('line_id').notNull().references(() => line.id),
  at: instant('at').notNull(),
})

/** The most that somebody may spend on texts, or that may be spent from the lines of a team. */
export const moneyLimit = pgTable('money_limit', {
  id: id().primaryKey(),
  colleagueId: id('colleague_id').references(() => colleague.id),
  teamId: id('team_id').references(() => team.id),
  period: text('period', { enum: LIMIT_PERIODS }).notNull(),
  currency: text('currency').notNull(),
  micros: micros('micros').notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
}, table => [
  ...knownValues('money_limit', table),
  check('money_limit_whose', sql`(${table.colleagueId} is null) <> (${table.teamId} is null)`),
  unique('money_limit_once').on(table.colleagueId, table.teamId, table.period, table.currency).nullsNotDistinct(),
  index('money_limit_team').on(table.teamId).where(sql`${table.teamId} is not null`),
])

/** Somebody could not send for want of money, and has asked the admins. */
export const moneyAsk = pgTable('money_ask', {
  id: id().primaryKey(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  currency: text('currency').notNull(),
  /** As it was said to them. */
  why: text('why').notNull(),
  at: instant('at').notNull(),
  settledAt: instant('settled_at'),
  settledBy: id('settled_by').references(() => colleague.id),
}, table => [
  uniqueIndex('money_ask_open').on(table.colleagueId, table.currency).where(sql`${table.settledAt} is null`),
])
