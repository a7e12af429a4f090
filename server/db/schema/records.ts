import { sql, type SQLWrapper } from 'drizzle-orm'
import { boolean, index, integer, jsonb, pgTable, primaryKey, text, unique, type AnyPgColumn } from 'drizzle-orm/pg-core'
import { PHONE_KINDS, UNUSABLE_REASONS } from '../../../core/phone/kinds'
import { FIELD_KINDS } from '../../../core/template/fields'
import { HELD, MODULES } from '../../../shared/modules'
import { id, instant, knownValues } from '../columns'
import { colleague, team } from './identity'

/** As people sort words, and not by code points. */
const sorted = (words: SQLWrapper) => sql`(${words} collate "und-x-icu")`

/** It rang at somebody else's: a colleague has said so. */
const NOT_THEIRS = 'not-theirs'

/** Records of all modules: common columns, and the module's own fields as jsonb. */
export const record = pgTable(
  'record',
  {
    id: id().primaryKey(),
    module: text('module', { enum: MODULES }).notNull(),
    name: text('name').notNull(),
    firstName: text('first_name'),
    lastName: text('last_name'),
    title: text('title'),
    ownerId: id('owner_id')
      .notNull()
      .references(() => colleague.id),
    teamId: id('team_id')
      .notNull()
      .references(() => team.id),
    companyId: id('company_id').references((): AnyPgColumn => record.id, { onDelete: 'set null' }),
    /** Of a deal, the one it stands in; of a job, the one in which its candidates stand. */
    pipelineId: id('pipeline_id').references(() => pipeline.id),
    stageId: id('stage_id').references((): AnyPgColumn => stage.id),
    /** Since when it stands in this stage, where somebody has moved it. */
    stageSince: instant('stage_since'),
    /** The deal, job or case on which a dated thing hangs. */
    aboutId: id('about_id').references((): AnyPgColumn => record.id, { onDelete: 'set null' }),
    street: text('street'),
    city: text('city'),
    region: text('region'),
    postcode: text('postcode'),
    country: text('country'),
    /** IANA zone, where it is known better than the number and the address tell. */
    zone: text('zone'),
    /** Between which whole hours of their day this person wants to be reached, where they have said so. */
    wishFrom: integer('wish_from'),
    wishTo: integer('wish_to'),
    mail: text('mail'),
    tags: text('tags').array().notNull().default([]),
    fields: jsonb('fields').$type<Record<string, unknown>>().notNull().default({}),
    /** All by which it is found, in plain words (core/text/plain). */
    foundBy: text('found_by').generatedAlwaysAs(sql`found_by(name, mail, postcode, tags, fields)`),
    /** Grows with every edit, so that a stale one is noticed. */
    version: integer('version').notNull().default(1),
    madeAt: instant('made_at').notNull(),
  },
  table => [
    ...knownValues('record', table),
    // by which a list is walked: one for each of its columns, either way
    ...(['name', 'title', 'city', 'mail', 'street', 'postcode', 'region', 'country'] as const).map(column =>
      index(`record_${column}`).on(table.module, sorted(table[column]), table.id),
    ),
    index('record_sorted_tags').on(table.module, sorted(sql`nullif(${table.tags}, '{}')`), table.id),
    index('record_made').on(table.module, table.madeAt, table.id),
    index('record_owner').on(table.module, table.ownerId, table.id),
    index('record_tags').using('gin', table.tags),
    index('record_company').on(table.companyId),
    index('record_about')
      .on(table.aboutId)
      .where(sql`${table.aboutId} is not null`),
    index('record_pipeline')
      .on(table.pipelineId, table.id)
      .where(sql`${table.pipelineId} is not null`),
    index('record_stage')
      .on(table.stageId, table.id)
      .where(sql`${table.stageId} is not null`),
    // by which a file's rows are found to be here already
    index('record_mail_key')
      .on(sql`lower(${table.mail})`)
      .where(sql`${table.mail} is not null`),
    index('record_name_key').on(sql`lower(${table.name})`, table.module),
    index('record_sector').on(sorted(sql`nullif(${table.fields} ->> 'sector', '')`), table.id).where(sql`${table.module} = 'company'`),
    index('record_name_words').using('gin', sql`${table.name} gin_trgm_ops`),
    index('record_found_words').using('gin', sql`${table.foundBy} gin_trgm_ops`),
  ],
)

/** What stands in a row of stages: of deals and of a job's candidates there are as many as a firm likes, of all else one. */
export const pipeline = pgTable('pipeline', {
  id: id().primaryKey(),
  holds: text('holds', { enum: HELD }).notNull(),
  name: text('name').notNull(),
  position: integer('position').notNull(),
}, table => knownValues('pipeline', table))

/** Where something can stand. It is known by its id: renaming it moves nobody. */
export const stage = pgTable('stage', {
  id: id().primaryKey(),
  pipelineId: id('pipeline_id').notNull().references(() => pipeline.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  /** What stands here is over: what happens with its people shows on it no more. */
  over: boolean('over').notNull().default(false),
  position: integer('position').notNull(),
}, table => [index('stage_pipeline').on(table.pipelineId, table.position)])

/** A person on a deal, a job, a case or something that has a day. */
export const recordPerson = pgTable('record_person', {
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  personId: id('person_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  /** Where a candidate stands in a job's pipeline. */
  stageId: id('stage_id').references(() => stage.id),
  stageSince: instant('stage_since'),
  madeAt: instant('made_at').notNull(),
}, table => [
  primaryKey({ columns: [table.recordId, table.personId] }),
  index('record_person_stage').on(table.stageId).where(sql`${table.stageId} is not null`),
  index('record_person_person').on(table.personId),
])

export const phone = pgTable(
  'phone',
  {
    id: id().primaryKey(),
    recordId: id('record_id')
      .notNull()
      .references(() => record.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    label: text('label').notNull(),
    /** As it was typed: nothing heard in a call is lost. */
    typed: text('typed').notNull(),
    e164: text('e164'),
    country: text('country'),
    kind: text('kind', { enum: PHONE_KINDS }).notNull(),
    extension: text('extension'),
    /** Why the number can't be used; null if it can. */
    unusable: text('unusable', { enum: [...UNUSABLE_REASONS, NOT_THEIRS] }),
    /** Which number it was, where it was found to be somebody else's. */
    wrongE164: text('wrong_e164'),
  },
  table => [
    ...knownValues('phone', table),
    index('phone_record').on(table.recordId, table.position),
    index('phone_e164').on(table.e164),
    index('phone_first')
      .on(sorted(sql`coalesce(${table.e164}, ${table.typed})`))
      .where(sql`${table.position} = 0`),
    index('phone_digits').using('gin', sql`${table.e164} gin_trgm_ops`),
  ],
)

/** Fields that a firm adds to a module. Those that Plauder knows are in shared/fields. */
export const customField = pgTable('custom_field', {
  id: id().primaryKey(),
  module: text('module', { enum: MODULES }).notNull(),
  key: text('key').notNull(),
  label: text('label').notNull(),
  kind: text('kind', { enum: FIELD_KINDS }).notNull(),
  example: text('example').notNull(),
  /** What a choice is made from. */
  options: text('options').array().notNull().default([]),
  position: integer('position').notNull(),
  /** Asked for and shown no more; what records hold in it stays. */
  retiredAt: instant('retired_at'),
}, table => [...knownValues('custom_field', table), unique('custom_field_key').on(table.module, table.key)])
