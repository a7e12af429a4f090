import type { FillIn } from '~~/core/template/fill-ins'
import { boolean, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { TextedModule } from '~~/shared/modules'
import { AUDIENCES } from '../../../shared/template'
import { id, instant, knownValues } from '../columns'
import { colleague, team } from './identity'

export const template = pgTable('template', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  modules: text('modules').array().$type<TextedModule[]>().notNull(),
  /** What it is for, in a sentence. */
  description: text('description').notNull().default(''),
  /** Where it lies; empty for none. */
  folder: text('folder').notNull().default(''),
  /** Liquid. */
  body: text('body').notNull(),
  fillIns: jsonb('fill_ins').$type<FillIn[]>().notNull().default([]),
  /** For its owner alone, for one team, or for everyone. */
  audience: text('audience', { enum: AUDIENCES }).notNull().default('all'),
  teamId: id('team_id').references(() => team.id),
  version: integer('version').notNull(),
  ownerId: id('owner_id').notNull().references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
  /** Since when it is offered no more. */
  retiredAt: instant('retired_at'),
}, table => knownValues('template', table))

/** A template as one colleague has it: near at hand or not, and how often it was used. */
export const templateMine = pgTable('template_mine', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  templateId: id('template_id').notNull().references(() => template.id),
  favourite: boolean('favourite').notNull().default(false),
  times: integer('times').notNull().default(0),
}, table => [primaryKey({ columns: [table.colleagueId, table.templateId] }), index('template_mine_template').on(table.templateId)])

/** Every wording a template ever had: each sent message names the one it came from. */
export const templateVersion = pgTable('template_version', {
  templateId: id('template_id').notNull().references(() => template.id),
  version: integer('version').notNull(),
  name: text('name').notNull(),
  body: text('body').notNull(),
  fillIns: jsonb('fill_ins').$type<FillIn[]>().notNull().default([]),
  at: instant('at').notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
}, table => [primaryKey({ columns: [table.templateId, table.version] })])
