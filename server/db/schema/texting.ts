import { sql } from 'drizzle-orm'
import { bigint, boolean, check, index, integer, jsonb, pgTable, text, unique, primaryKey, type AnyPgColumn } from 'drizzle-orm/pg-core'
import type { LineHours } from '~~/core/hours/line-hours'
import { LINE_STATES, WORKING } from '../../../core/lines/life'
import { PORTING_STATES } from '../../../core/lines/porting'
import type { NationalLanguage, Shift } from '~~/core/text/national'
import { MESSAGE_KINDS } from '../../../core/message/kinds'
import { MESSAGE_STATES } from '../../../core/message/states'
import { OWED_FOR } from '../../../core/owed/owed'
import { ENCODINGS } from '../../../core/text/measure'
import type { InboxAsked } from '../../../shared/inbox'
import { RING_SOUNDS } from '../../../shared/calling'
import { PICTURE_TYPES } from '../../../shared/pictures'
import { bytes, DIRECTIONS, id, instant, knownValues } from '../columns'
import { colleague, team } from './identity'
import { record } from './records'
import { template } from './templates'
import { activity } from './activity'

/** A number of ours. It belongs to a team or to a person. */
export const line = pgTable('line', {
  id: id().primaryKey(),
  e164: text('e164').notNull().unique(),
  name: text('name').notNull(),
  country: text('country').notNull(),
  teamId: id('team_id').references(() => team.id),
  colleagueId: id('colleague_id').references(() => colleague.id),
  /** What goes over it shows on timelines only to those who answer it. */
  private: boolean('private').notNull().default(false),
  state: text('state', { enum: LINE_STATES }).notNull().default('active'),
  /** Whether it is texted and called from. */
  active: boolean('active').notNull()
    .generatedAlwaysAs(sql.raw(`state in (${WORKING.map(state => `'${state}'`).join(', ')})`)),
  /**
   * Where its carrier rents it out: when it is there, is paid for again, or ends; of one that has ended, when it did. And what a month
   * costs.
   */
  turnsAt: instant('turns_at'),
  rentMicros: bigint('rent_micros', { mode: 'number' }),
  rentCurrency: text('rent_currency'),
  /** When its carrier was heard last about it: what was said before that comes too late. */
  toldAt: instant('told_at'),
  carrier: text('carrier').notNull(),
  /** Over which its texts leave while its carrier cannot be reached; null: they wait. */
  standInId: id('stand_in_id').references((): AnyPgColumn => line.id),
  /** Languages whose national tables the line's carrier knows, as an admin says. */
  languages: jsonb('languages').$type<NationalLanguage[]>().notNull().default([]),
  /** Whether talks over it are recorded; each can be switched by itself. */
  records: boolean('records').notNull().default(false),
  /** What a caller hears before the tone; null: it takes no messages, and rings on. */
  greeting: text('greeting'),
  /** What a caller hears instead while all who answer it talk; null: it rings on. */
  busyGreeting: text('busy_greeting'),
  /** How it sounds when it rings in the browser. */
  ringSound: text('ring_sound', { enum: RING_SOUNDS }).notNull().default('quick'),
  /** How long it rings before it takes a message. */
  ringSeconds: integer('ring_seconds').notNull().default(25),
  /** When it is answered, by the clock where it is; null: always. */
  hours: jsonb('hours').$type<LineHours>(),
  /** Whether it rings first with the colleague to whom the caller belongs. */
  ownerFirst: boolean('owner_first').notNull().default(false),
  /** With these colleagues it rings one after the other, before it rings with all. */
  ringOrder: jsonb('ring_order').$type<string[]>().notNull().default([]),
  /** What comes in and nobody has goes to these in turn; empty: to nobody in particular. */
  takeOrder: jsonb('take_order').$type<string[]>().notNull().default([]),
  /** Whose turn it was last. */
  tookLast: id('took_last').references(() => colleague.id),
  /** How many bulk texts leave over it in a minute, and in a day; null: as many as go. */
  textsAMinute: integer('texts_a_minute').notNull().default(60),
  textsADay: integer('texts_a_day'),
  /** When it came, so that it begins with few; null: it was there all along. */
  newSince: instant('new_since'),
}, table => knownValues('line', table))

/** A line whose number is brought over from another carrier, or was. */
export const numberPorting = pgTable('number_porting', {
  lineId: id('line_id').primaryKey().references(() => line.id),
  /** The carrier that has it, in words, and the account under which it has us. */
  from: text('from_carrier').notNull(),
  account: text('account').notNull(),
  /** A calendar day; empty: as soon as it can be. */
  wishedDay: text('wished_day').notNull(),
  state: text('state', { enum: PORTING_STATES }).notNull(),
  /** The day on which it comes; null as long as none is agreed. */
  day: text('day'),
  /** Why it was sent back. */
  words: text('words').notNull().default(''),
  askedAt: instant('asked_at').notNull(),
}, table => knownValues('number_porting', table))

/** Everything between one address of ours and one of somebody else: of texts, between a line and a number. */
export const conversation = pgTable('conversation', {
  id: id().primaryKey(),
  kind: text('kind', { enum: MESSAGE_KINDS }).notNull(),
  /** Of texts: theirs alone. */
  lineId: id('line_id').references(() => line.id),
  remote: text('remote').notNull(),
  /** Since when an answer of ours is owed; null if none is. By the rules of core/owed. */
  waitsSince: instant('waits_since'),
  /** What made it owed first. */
  waitsFor: text('waits_for', { enum: OWED_FOR }),
  /** When it is owed again, because a colleague has put it back for then. */
  returnsAt: instant('returns_at'),
  /** To whom it was handed; null: to nobody, so that all who answer its line owe it. */
  assigneeId: id('assignee_id').references(() => colleague.id),
  /** Its newest text, in either direction. */
  lastAt: instant('last_at').notNull(),
  /** Whether anything ever came in, and went out: so that those of which only one is true are found without reading their texts. */
  cameIn: boolean('came_in').notNull().default(false),
  wentOut: boolean('went_out').notNull().default(false),
  /** All that went out was bulk texts. As long as nothing came back, it lies in nobody's way. */
  bulkOnly: boolean('bulk_only').notNull().default(false),
}, table => [
  ...knownValues('conversation', table),
  check('conversation_text_line', sql`(${table.kind} = 'text') = (${table.lineId} is not null)`),
  unique('conversation_line_remote').on(table.lineId, table.remote),
  check('conversation_waits_why', sql`(${table.waitsSince} is null) = (${table.waitsFor} is null)`),
  index('conversation_newest').on(table.lineId, table.lastAt, table.id).where(sql`${table.cameIn} or not ${table.bulkOnly}`),
  index('conversation_sent_only').on(table.lineId, table.lastAt, table.id).where(sql`not ${table.cameIn}`),
  index('conversation_received_only').on(table.lineId, table.lastAt, table.id).where(sql`not ${table.wentOut}`),
  index('conversation_assignee').on(table.assigneeId).where(sql`${table.assigneeId} is not null`),
  index('conversation_waits').on(table.waitsSince).where(sql`${table.waitsSince} is not null`),
  index('conversation_remote').on(table.remote),
])

const MESSAGE_ORIGINS = ['by-hand', 'disposition', 'bulk', 'bulk-answer', 'automatic'] as const
export type MessageOrigin = typeof MESSAGE_ORIGINS[number]

/** What colleagues did with a conversation that is no message of it: put back, handed over, nothing needed. */
export const conversationEvent = pgTable('conversation_event', {
  conversationId: id('conversation_id').notNull().references(() => conversation.id),
  at: instant('at').notNull(),
  activityId: id('activity_id').notNull().unique().references(() => activity.id),
}, table => [primaryKey({ columns: [table.conversationId, table.at, table.activityId] })])

/** The inbox as somebody wants to see it again: its filters, its line, its kind of record, its words. */
export const inboxView = pgTable('inbox_view', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  ownerId: id('owner_id').notNull().references(() => colleague.id),
  /** Whose it is besides; null for a view of one's own. */
  teamId: id('team_id').references(() => team.id),
  asked: jsonb('asked').$type<InboxAsked>().notNull(),
  madeAt: instant('made_at').notNull(),
})

/** Up to when each colleague has seen a conversation. What is newer they have not seen yet. */
export const conversationSeen = pgTable('conversation_seen', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  conversationId: id('conversation_id').notNull().references(() => conversation.id),
  seenAt: instant('seen_at').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.conversationId] })])

/**
 * One message, in either direction: what is true of one of any kind. Its words are the content of its activity. What is
 * only true of a kind is in a table of its own.
 */
export const message = pgTable('message', {
  id: id().primaryKey(),
  kind: text('kind', { enum: MESSAGE_KINDS }).notNull(),
  conversationId: id('conversation_id').notNull().references(() => conversation.id),
  activityId: id('activity_id').notNull().unique().references(() => activity.id),
  direction: text('direction', { enum: DIRECTIONS }).notNull(),
  origin: text('origin', { enum: MESSAGE_ORIGINS }),
  authorId: id('author_id').references(() => colleague.id),
  /** The record from which it was written. */
  recordId: id('record_id').references(() => record.id, { onDelete: 'set null' }),
  templateId: id('template_id').references(() => template.id),
  templateVersion: integer('template_version'),
  /** What a colleague calls it; its template's name, if nobody does. */
  name: text('name'),
  state: text('state', { enum: [...MESSAGE_STATES, 'received'] }).notNull(),
  /** Why it is held or failed: a code of the gate or of the carrier port. */
  code: text('code'),
  /** A person has said that it may leave at an hour at which it is night there. */
  nightAllowed: boolean('night_allowed').notNull().default(false),
  /** What the conversation waited for when this answered it, to be restored if it is taken back. */
  answersSince: instant('answers_since'),
  /** How many pictures go with it. */
  pictures: integer('pictures').notNull().default(0),
  costMicros: bigint('cost_micros', { mode: 'number' }),
  currency: text('currency'),
  madeAt: instant('made_at').notNull(),
  leavesAt: instant('leaves_at').notNull(),
  handedAt: instant('handed_at'),
  /** Since when its carrier is asked and does not take it; null while nobody has asked, or the carrier only has no room. */
  tryingSince: instant('trying_since'),
  settledAt: instant('settled_at'),
  /** The line for which another one stood in, as its carrier could not be reached. */
  meantLineId: id('meant_line_id').references(() => line.id),
  /** Who was asked to take it, or has brought it. */
  carrier: text('carrier'),
  /** The carrier's own name for it. */
  carrierRef: text('carrier_ref'),
  /** When its carrier has said that it takes it. */
  acceptedAt: instant('accepted_at'),
  /** Short, with a check character: to be said over the telephone. Texts of before there were refs have none. */
  ref: text('ref').unique(),
  /** Of a text that is to leave later: the moment as it was meant, by the clock of a place. */
  wallTime: text('wall_time'),
  wallZone: text('wall_zone'),
}, table => [
  ...knownValues('message', table),
  index('message_record').on(table.recordId).where(sql`${table.recordId} is not null`),
  unique('message_carrier_ref').on(table.carrier, table.carrierRef),
  index('message_conversation').on(table.conversationId, table.madeAt),
  index('message_newest').on(table.madeAt, table.id),
  index('message_template').on(table.templateId, table.templateVersion).where(sql`${table.templateId} is not null`),
  index('message_scheduled').on(table.leavesAt).where(sql`${table.wallTime} is not null and ${table.state} = 'waiting'`),
  index('message_trouble').on(table.conversationId).where(sql`${table.state} in ('failed', 'held')`),
  index('message_unsettled').on(table.handedAt).where(sql`${table.state} in ('accepted', 'sent')`),
])

/** What is only true of a text. */
export const textMessage = pgTable('text_message', {
  messageId: id('message_id').primaryKey().references(() => message.id, { onDelete: 'cascade' }),
  encoding: text('encoding', { enum: ENCODINGS }).notNull(),
  /** The national tables that it is said in. */
  shift: text('shift').$type<Shift>(),
  units: integer('units').notNull(),
  /** As its carrier counts them once it has said so; one with pictures is one, whatever its length. */
  parts: integer('parts').notNull(),
  /** The one confirming text after a STOP, which alone passes an opt-out. */
  confirmsOptOut: boolean('confirms_opt_out').notNull().default(false),
}, table => [...knownValues('text_message', table)])

/** A picture as it goes: made small, without what the camera wrote into it. */
export const picture = pgTable('picture', {
  id: id().primaryKey(),
  /** Who has put it in; null for one that came in. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  /** Null until the text is sent that it was put into. */
  messageId: id('message_id').references(() => message.id),
  type: text('type', { enum: PICTURE_TYPES }).notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  size: integer('size').notNull(),
  /** Null for the same picture in another text, which says whose bytes it has. */
  bytes: bytes('bytes'),
  ofId: id('of_id').references((): AnyPgColumn => picture.id),
  at: instant('at').notNull(),
}, table => [
  ...knownValues('picture', table),
  index('picture_message').on(table.messageId).where(sql`${table.messageId} is not null`),
  check('picture_somewhere', sql`(${table.bytes} is null) <> (${table.ofId} is null)`),
  index('picture_of').on(table.ofId).where(sql`${table.ofId} is not null`),
  index('picture_unsent').on(table.colleagueId, table.at).where(sql`${table.messageId} is null`),
])

/** What somebody has written and not sent, by what it is for. */
export const draft = pgTable('draft', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  /** `record …`, `conversation …`, or `note …` for a note on a record, by its id. */
  key: text('key').notNull(),
  text: text('text').notNull(),
  templateId: id('template_id').references(() => template.id, { onDelete: 'set null' }),
  templateVersion: integer('template_version'),
  ref: text('ref').notNull(),
  pictureIds: jsonb('picture_ids').$type<string[]>().notNull().default([]),
  at: instant('at').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.key] })])

/** What a carrier told us, once each by its own id, before anything is made of it. */
export const carrierEvent = pgTable('carrier_event', {
  carrier: text('carrier').notNull(),
  id: text('id').notNull(),
  kind: text('kind').notNull(),
  carrierRef: text('carrier_ref').notNull(),
  code: text('code'),
  at: instant('at').notNull(),
  receivedAt: instant('received_at').notNull(),
  /** Null while no message of ours matches. */
  messageId: id('message_id').references(() => message.id),
}, table => [primaryKey({ columns: [table.carrier, table.id] }), index('carrier_event_ref').on(table.carrier, table.carrierRef)])
