import { sql } from 'drizzle-orm'
import { boolean, check, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid, type AnyPgColumn } from 'drizzle-orm/pg-core'
import { LEFT_OUT_REASONS, NUMBER_WAYS } from '../../../core/bulk/fate'
import { BULK_STANDINGS, BULK_TEXT_STATES, PACE_CHANGES } from '../../../core/bulk/states'
import type { Brought } from '../../../core/plan/answers'
import type { PlanRun } from '../../../core/plan/run'
import type { FillIn } from '../../../core/template/fill-ins'
import type { TextedModule } from '../../../shared/modules'
import type { BulkWhom } from '../../../shared/schemas/bulk-text'
import { id, instant, knownValues } from '../columns'
import { activity } from './activity'
import { peopleGroup } from './groups'
import { colleague } from './identity'
import { phone, record } from './records'
import { template } from './templates'
import { line } from './texting'

/** One text to many: written once, checked person by person, sent by a plan. */
export const bulkText = pgTable('bulk_text', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  /** What its people are, most of them first. */
  modules: jsonb('modules').$type<TextedModule[]>().notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  state: text('state', { enum: BULK_TEXT_STATES }).notNull().default('draft'),
  /** Grows whenever it is set going: work that was begun for an earlier turn ends. */
  turn: integer('turn').notNull().default(0),
  /** The group to which it goes, where it was made for one: it is in that one's feed. */
  groupId: id('group_id').references(() => peopleGroup.id, { onDelete: 'set null' }),
  /** To whom it was begun: a list or a group has other people in it when the text is repeated. */
  whom: jsonb('whom').$type<BulkWhom>(),
  /** Which one it repeats, how many came to its people since, and how many went. */
  /** The bulk text whose questions it answers: it leaves as an answer does, by the conversation that waits. */
  answersId: id('answers_id').references((): AnyPgColumn => bulkText.id, { onDelete: 'set null' }),
  /** The same for all that are about one occasion, each for another audience: whoever is in two of them gets one text. */
  occasionId: id('occasion_id').notNull(),
  repeatsId: id('repeats_id').references((): AnyPgColumn => bulkText.id, { onDelete: 'set null' }),
  came: integer('came'),
  gone: integer('gone'),
  /** Its people, in the order in which they were gathered. */
  recordIds: uuid('record_ids').array().notNull().default([]),
  /** The wording, as a template is stored: what is checked is what is sent, whatever becomes of the template. */
  body: text('body').notNull().default(''),
  templateId: id('template_id').references(() => template.id),
  templateVersion: integer('template_version'),
  fillIns: jsonb('fill_ins').$type<FillIn[]>().notNull().default([]),
  answers: jsonb('answers').$type<Record<string, unknown>>().notNull().default({}),
  /** Over which line all of it goes; null: each person's usual one, else the nearest. */
  lineId: id('line_id').references(() => line.id),
  /** Whoever has no usual line is texted over any that suits, so that each has its share; else over the nearest. */
  spread: boolean('spread').notNull().default(false),
  numberWay: text('number_way', { enum: NUMBER_WAYS }).notNull().default('mobile'),
  numberLabel: text('number_label').notNull().default(''),
  /** The pictures that go with each text. */
  pictureIds: jsonb('picture_ids').$type<string[]>().notNull().default([]),
  /** Grows whenever it comes to say something else: whoever has words of their own for an earlier one is looked at again. */
  wording: integer('wording').notNull().default(0),
  /** Whom we have texted within so many days is pointed out. */
  latelyDays: integer('lately_days').notNull().default(3),
  /** How many of a hundred are held back by chance; which, its id decides. */
  holdOut: integer('hold_out').notNull().default(0),
  /** What it is about, with its place and moment: whatever would leave from then on is left out. */
  occasion: text('occasion').notNull().default(''),
  place: text('place').notNull().default(''),
  eventAt: instant('event_at'),
  /** How many of its people are checked. */
  checked: integer('checked').notNull().default(0),
  days: integer('days').notNull().default(1),
  /** When the first was to leave, as it was started. */
  startAt: instant('start_at'),
  /** When each leaves; null until it is set going. */
  runs: jsonb('runs').$type<PlanRun[]>(),
  /** When it was last looked at whose turn has come. */
  lookedAt: instant('looked_at'),
  /** Of each line, up to when its turns are used up, epoch milliseconds. */
  paced: jsonb('paced').$type<Record<string, number>>().notNull().default({}),
  /** Why it has paused by itself. */
  why: text('why'),
  /** What similar texts had brought when it was checked. */
  brought: jsonb('brought').$type<Brought>(),
  /** How many answers an hour can be worked off, where it goes no faster than that; null: as fast as its lines. */
  answersAnHour: integer('answers_an_hour'),
  /** Since when it waits because answers have piled up. */
  waitsSince: instant('waits_since'),
  /** When it was last counted how many wait for an answer. */
  answersLookedAt: instant('answers_looked_at'),
  startedAt: instant('started_at'),
  endedAt: instant('ended_at'),
}, table => [...knownValues('bulk_text', table), index('bulk_text_made').on(table.madeBy, table.madeAt), index('bulk_text_occasion').on(table.occasionId), index('bulk_text_group').on(table.groupId, table.startedAt).where(sql`${table.groupId} is not null`)])

/** Somebody in a bulk text, as the check has found them, and where they stand. */
export const bulkPerson = pgTable('bulk_person', {
  /** The id that their text has once it is on its way: with it nobody gets two. */
  id: id().primaryKey(),
  bulkId: id('bulk_id').notNull().references(() => bulkText.id, { onDelete: 'cascade' }),
  /** Of their bulk text. */
  occasionId: id('occasion_id').notNull(),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  position: integer('position').notNull(),
  standing: text('standing', { enum: BULK_STANDINGS }).notNull(),
  reason: text('reason', { enum: LEFT_OUT_REASONS }),
  /** What is missing, or why it was refused at the last moment. */
  detail: text('detail'),
  /** We have texted them a short while ago. */
  lately: boolean('lately').notNull().default(false),
  phoneId: id('phone_id').references(() => phone.id, { onDelete: 'set null' }),
  e164: text('e164'),
  lineId: id('line_id').references(() => line.id),
  /** The zones in which they may be, joined by blanks, and between which hours they want to be reached. */
  zones: text('zones'),
  /** The places in which they may be, for rules that hold by place, joined by blanks. */
  places: text('places').notNull().default(''),
  wishFrom: integer('wish_from'),
  wishTo: integer('wish_to'),
  /** The text as it is sent. */
  words: text('words'),
  units: integer('units'),
  parts: integer('parts'),
  ref: text('ref'),
  /** What was chosen and written for them alone, and for which wording. */
  ownPhoneId: id('own_phone_id').references(() => phone.id, { onDelete: 'set null' }),
  ownWords: text('own_words'),
  ownWording: integer('own_wording'),
  /** When they have written for the first time since it went to them. */
  answeredAt: instant('answered_at'),
  /** Who has said that they have answered in another way: by mail, at the counter. */
  answerNotedBy: id('answer_noted_by').references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
}, table => [
  ...knownValues('bulk_person', table),
  check('bulk_person_sendable', sql`${table.standing} not in ('ready', 'texted')
    or (${table.e164} is not null and ${table.lineId} is not null and ${table.zones} <> '' and ${table.words} is not null)`),
  uniqueIndex('bulk_person_once').on(table.bulkId, table.recordId),
  index('bulk_person_answered').on(table.bulkId, table.position).where(sql`${table.answeredAt} is not null`),
  index('bulk_person_record').on(table.recordId),
  index('bulk_person_phone').on(table.phoneId),
  index('bulk_person_own_phone').on(table.ownPhoneId).where(sql`${table.ownPhoneId} is not null`),
  index('bulk_person_standing').on(table.bulkId, table.standing, table.reason, table.position),
  index('bulk_person_unanswered').on(table.e164).where(sql`${table.standing} in ('texted', 'held-out') and ${table.answeredAt} is null`),
  // whose turn it is, of those who may be texted in the same hours over the same line
  index('bulk_person_next').on(table.bulkId, table.lineId, table.zones, table.places, table.wishFrom, table.wishTo, table.position)
    .where(sql`${table.standing} = 'ready'`),
  // which bulk text somebody has answered
  index('bulk_person_heard').on(table.e164, table.answeredAt).where(sql`${table.standing} = 'texted' and ${table.answeredAt} is not null`),
  // the same number on two records is still one telephone, and whoever is in two audiences gets one text
  uniqueIndex('bulk_person_number').on(table.occasionId, table.e164).where(sql`${table.standing} in ('ready', 'texted')`),
])

/** Each change of a bulk text's pace, with its reason. */
export const bulkPace = pgTable('bulk_pace', {
  bulkId: id('bulk_id').notNull().references(() => bulkText.id, { onDelete: 'cascade' }),
  at: instant('at').notNull(),
  what: text('what', { enum: PACE_CHANGES }).notNull(),
  /** How many answers waited then. */
  waiting: integer('waiting').notNull(),
  /** How many an hour can be worked off from then on; null: it does not go by that any more. */
  anHour: integer('an_hour'),
}, table => [...knownValues('bulk_pace', table), primaryKey({ columns: [table.bulkId, table.at] })])

/** People of a bulk text who may be texted in the same hours over the same line, as they are planned, and how many have had their turn. */
export const bulkGroup = pgTable('bulk_group', {
  bulkId: id('bulk_id').notNull().references(() => bulkText.id, { onDelete: 'cascade' }),
  /** As the plan calls it. */
  name: text('name').notNull(),
  lineId: id('line_id').notNull().references(() => line.id),
  zones: text('zones').notNull(),
  places: text('places').notNull().default(''),
  wishFrom: integer('wish_from'),
  wishTo: integer('wish_to'),
  people: integer('people').notNull(),
  begun: integer('begun').notNull().default(0),
}, table => [primaryKey({ columns: [table.bulkId, table.name] })])

/** Where a bulk text stands on a company's timeline, and to how many of its people it went. */
export const bulkCompany = pgTable('bulk_company', {
  bulkId: id('bulk_id').notNull().references(() => bulkText.id, { onDelete: 'cascade' }),
  companyId: id('company_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
  activityId: id('activity_id').notNull().references(() => activity.id),
  people: integer('people').notNull(),
}, table => [primaryKey({ columns: [table.bulkId, table.companyId] }), index('bulk_company_record').on(table.companyId)])
