import { bigserial, index, pgTable, text, type AnyPgColumn } from 'drizzle-orm/pg-core'
import type { ConsentKind } from '~~/core/consent/ledger'
import { id, instant } from '../columns'
import { colleague } from './identity'

/** The ledger: who agreed or refused, when, how, to what, with the words used. Only added to. */
export const consentEntry = pgTable('consent_entry', {
  id: id().primaryKey(),
  sequence: bigserial('sequence', { mode: 'number' }).notNull(),
  e164: text('e164').notNull(),
  at: instant('at').notNull(),
  kind: text('kind').$type<ConsentKind>().notNull(),
  /** The entry that is taken back by this one, as if it had never been written. */
  annulsId: id('annuls_id').references((): AnyPgColumn => consentEntry.id),
  covers: text('covers').$type<'texts' | 'calls' | 'both'>().notNull(),
  how: text('how').$type<'text' | 'form' | 'by-hand' | 'file'>().notNull(),
  words: text('words'),
  messageId: id('message_id'),
  colleagueId: id('colleague_id').references(() => colleague.id),
}, table => [index('consent_entry_number').on(table.e164, table.at)])

/** The ledger's state now, kept for queries, and the row that a STOP and a hand-over lock. */
export const numberState = pgTable('number_state', {
  e164: text('e164').primaryKey(),
  texts: text('texts').$type<'unknown' | 'agreed' | 'refused'>().notNull().default('unknown'),
  calls: text('calls').$type<'unknown' | 'agreed' | 'refused'>().notNull().default('unknown'),
  /** The entry that decided on texts. */
  textsEntryId: id('texts_entry_id'),
  lastHeardAt: instant('last_heard_at'),
})

/** A wish in free words, for a person to decide on. */
export const consentProposal = pgTable('consent_proposal', {
  id: id().primaryKey(),
  e164: text('e164').notNull(),
  activityId: id('activity_id').notNull(),
  at: instant('at').notNull(),
  decidedAt: instant('decided_at'),
  decidedBy: id('decided_by').references(() => colleague.id),
  optedOut: text('opted_out').$type<'yes' | 'no'>(),
}, table => [index('consent_proposal_number').on(table.e164), index('consent_proposal_activity').on(table.activityId)])
