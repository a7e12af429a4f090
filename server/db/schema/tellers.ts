import { sql } from 'drizzle-orm'
import { index, integer, pgTable, primaryKey, text, unique } from 'drizzle-orm/pg-core'
import { id, instant } from '../columns'
import { colleague } from './identity'

/** How far we have read a carrier's own list of events. */
export const carrierCursor = pgTable('carrier_cursor', {
  carrier: text('carrier').primaryKey(),
  cursor: text('cursor').notNull(),
})

/** What a carrier takes for a text to a country, as last heard, and how much of one it takes. */
export const carrierPrice = pgTable('carrier_price', {
  carrier: text('carrier').notNull(),
  country: text('country').notNull(),
  microsPerPart: integer('micros_per_part').notNull(),
  currency: text('currency').notNull(),
  mostParts: integer('most_parts').notNull(),
  /** What a text with pictures costs; null where the country takes none. */
  microsPerPicture: integer('micros_per_picture'),
  mostPictures: integer('most_pictures').notNull().default(0),
  mostPictureBytes: integer('most_picture_bytes').notNull().default(0),
}, table => [primaryKey({ columns: [table.carrier, table.country] })])

/** What a carrier or an exchange told us and nobody here could read or take: kept for an admin, so that the rest goes on. */
export const setAsideEvent = pgTable('set_aside_event', {
  id: id().primaryKey(),
  /** Who told it. */
  teller: text('teller').notNull(),
  /** Of what was told: the same thing told twice is kept once. */
  hash: text('hash').notNull(),
  /** JSON, as text: what jsonb does not take is what may stand in here. */
  told: text('told').notNull(),
  why: text('why').notNull(),
  at: instant('at').notNull(),
  settledAt: instant('settled_at'),
  settledBy: id('settled_by').references(() => colleague.id),
}, table => [
  unique('set_aside_event_once').on(table.teller, table.hash),
  index('set_aside_event_open').on(table.at).where(sql`${table.settledAt} is null`),
])
