import { integer, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { PersonModule } from '~~/shared/modules'
import { id, instant } from '../columns'
import { colleague } from './identity'

export const template = pgTable('template', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  modules: text('modules').array().$type<PersonModule[]>().notNull(),
  /** Liquid. */
  body: text('body').notNull(),
  version: integer('version').notNull(),
  ownerId: id('owner_id').notNull().references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
})

/** Every wording a template ever had: each sent message names the one it came from. */
export const templateVersion = pgTable('template_version', {
  templateId: id('template_id').notNull().references(() => template.id),
  version: integer('version').notNull(),
  name: text('name').notNull(),
  body: text('body').notNull(),
  at: instant('at').notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
}, table => [primaryKey({ columns: [table.templateId, table.version] })])
