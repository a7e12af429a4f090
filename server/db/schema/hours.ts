import { date, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { WeekHours } from '../../../core/hours/week'
import { id, instant } from '../columns'
import { colleague } from './identity'

/** What an admin has said about the hours of a place: some of its own, or none (null) where its law is not held to. */
export const placeHours = pgTable('place_hours', {
  /** ISO 3166-2, or a country. */
  place: text('place').primaryKey(),
  week: jsonb('week').$type<WeekHours>(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
})

/** A country in which nobody is reached on its public holidays. */
export const holidayCountry = pgTable('holiday_country', {
  country: text('country').primaryKey(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
})

/** A day of the firm's own on which nobody is reached; everywhere where it names no place. */
export const closedDay = pgTable('closed_day', {
  id: id('id').primaryKey(),
  place: text('place'),
  day: date('day', { mode: 'string' }).notNull(),
  name: text('name').notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
})
