import { sql } from 'drizzle-orm'
import { bigserial, index, pgTable, text, type AnyPgColumn } from 'drizzle-orm/pg-core'
import { CONSENT_KINDS, CONSENT_STATES, CONSENT_WAYS, COVERS } from '../../../core/consent/ledger'
import { id, instant, knownValues } from '../columns'
import { colleague } from './identity'
import { message } from './texting'
import { activity } from './activity'

/** The ledger: who agreed or refused, when, how, to what, with the words used. Only added to. */
export const consentEntry = pgTable('consent_entry', {
  id: id().primaryKey(),
  sequence: bigserial('sequence', { mode: 'number' }).notNull(),
  e164: text('e164').notNull(),
  at: instant('at').notNull(),
  kind: text('kind', { enum: CONSENT_KINDS }).notNull(),
  /** The entry that is taken back by this one, as if it had never been written. */
  annulsId: id('annuls_id').references((): AnyPgColumn => consentEntry.id),
  covers: text('covers', { enum: COVERS }).notNull(),
  how: text('how', { enum: CONSENT_WAYS }).notNull(),
  words: text('words'),
  messageId: id('message_id').references(() => message.id),
  colleagueId: id('colleague_id').references(() => colleague.id),
}, table => [...knownValues('consent_entry', table), index('consent_entry_number').on(table.e164, table.at)])

/** The ledger's state now, kept for queries, and the row that a STOP and a hand-over lock. */
export const numberState = pgTable('number_state', {
  e164: text('e164').primaryKey(),
  texts: text('texts', { enum: CONSENT_STATES }).notNull().default('unknown'),
  calls: text('calls', { enum: CONSENT_STATES }).notNull().default('unknown'),
  /** The entry that decided on texts. */
  textsEntryId: id('texts_entry_id').references(() => consentEntry.id),
  lastHeardAt: instant('last_heard_at'),
}, table => [...knownValues('number_state', table), index('number_state_refused').on(table.e164).where(sql`${table.texts} = 'refused'`)])

/** A wish in free words, for a person to decide on. */
export const consentProposal = pgTable(
  'consent_proposal',
  {
    id: id().primaryKey(),
    e164: text('e164').notNull(),
    activityId: id('activity_id')
      .notNull()
      .references(() => activity.id),
    at: instant('at').notNull(),
    decidedAt: instant('decided_at'),
    decidedBy: id('decided_by').references(() => colleague.id),
    optedOut: text('opted_out', { enum: ['yes', 'no'] }),
  },
  table => [
    ...knownValues('consent_proposal', table),
    index('consent_proposal_number').on(table.e164),
    index('consent_proposal_activity').on(table.activityId),
  ],
)
