import { index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import { FATES } from '../../../core/smpp/receipt'
import { CARRIER_KINDS, type CarrierSettings } from '../../../shared/carriers'
import { id, instant, knownValues } from '../columns'
import { colleague } from './identity'

/** An account with a carrier, as an admin has set it up. */
export const carrierAccount = pgTable('carrier_account', {
  id: id().primaryKey(),
  /** By which lines, messages and events name it; it never changes. */
  name: text('name').notNull().unique(),
  kind: text('kind', { enum: CARRIER_KINDS }).notNull(),
  title: text('title').notNull(),
  settings: jsonb('settings').$type<CarrierSettings>().notNull(),
  /** What nobody may see again, sealed (server/sealing/seal.ts). */
  secret: text('secret').notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  /** The last hello of ours that it has answered, by which it is known to reach us. */
  hello: text('hello'),
  /** Counts its changes: whoever holds a connection sees that it is for an older account. */
  version: integer('version').notNull().default(1),
}, table => knownValues('carrier_account', table))

/** A short message that is a part of a text of ours: the SMS centre tells of each what became of it. */
export const smppSentPart = pgTable('smpp_sent_part', {
  carrier: text('carrier').notNull(),
  /** As the SMS centre named it. */
  ref: text('ref').notNull(),
  /** The first part's, which stands for the text. */
  textRef: text('text_ref').notNull(),
  fate: text('fate', { enum: FATES }),
  sentAt: instant('sent_at').notNull(),
}, table => [
  ...knownValues('smpp_sent_part', table),
  primaryKey({ columns: [table.carrier, table.ref] }),
  index('smpp_sent_part_text').on(table.carrier, table.textRef),
  index('smpp_sent_part_sent').on(table.sentAt),
])

/** A short message that is a part of a text for us, until all of its parts are there. */
export const smppReceivedPart = pgTable('smpp_received_part', {
  /** Of the first that came, it names the text. */
  id: id().notNull(),
  carrier: text('carrier').notNull(),
  remote: text('remote').notNull(),
  /** The number of ours to which it was written. */
  own: text('own').notNull(),
  reference: integer('reference').notNull(),
  parts: integer('parts').notNull(),
  part: integer('part').notNull(),
  text: text('text').notNull(),
  at: instant('at').notNull(),
}, table => [
  primaryKey({ columns: [table.carrier, table.remote, table.own, table.reference, table.parts, table.part] }),
])
