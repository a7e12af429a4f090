import { bigint, boolean, check, integer, jsonb, pgTable, primaryKey, smallint, text, index, varchar, type AnyPgColumn } from 'drizzle-orm/pg-core'
import type { KnockKind } from '../../../core/knock/kinds'
import { CALLS_WITH } from '../../../shared/calling'
import { ROLES, SCOPES, type Changeable } from '../../../shared/permissions'
import { sql } from 'drizzle-orm'
import { id, instant, knownValues } from '../columns'

/** The firm that uses Plauder: one row. */
export const firm = pgTable('firm', {
  id: smallint('id').primaryKey().default(1),
  name: text('name').notNull(),
  /** Country of a typed number that names none. */
  country: text('country').notNull(),
  textingOn: boolean('texting_on').notNull().default(false),
  /** For so long a text can be taken back before it leaves. */
  takeBackSeconds: smallint('take_back_seconds').notNull().default(5),
  /** After so long what knocks goes on to others. */
  knockMinutes: smallint('knock_minutes').notNull().default(5),
  /** After so long without an answer a conversation knocks at the lead; null: never. */
  waitsMinutes: smallint('waits_minutes').default(30),
  /** To so many people a rep may send a bulk text without a lead's word; null: to any number. */
  bulkMost: integer('bulk_most').default(200),
  /** With one of these tags a lead is hot. */
  hotTags: jsonb('hot_tags').$type<string[]>().notNull().default(['hot']),
})

export const team = pgTable('team', {
  id: id().primaryKey(),
  name: text('name').notNull(),
})

export const colleague = pgTable('colleague', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  firstName: text('first_name').notNull(),
  mail: text('mail').notNull().unique(),
  passwordHash: text('password_hash').notNull(),
  role: text('role', { enum: ROLES }).notNull(),
  title: text('title').notNull(),
  directLine: text('direct_line'),
  zone: text('zone').notNull(),
  /** Until when somebody from outside helps; null for all others. */
  helpsUntil: instant('helps_until'),
  /** Since when they work here no more; what was theirs is somebody else's, and what they did stays theirs. */
  leftAt: instant('left_at'),
  /** What came in before counts as seen by them. */
  seesFrom: instant('sees_from').notNull().defaultNow(),
  /** With what this colleague calls. */
  callsWith: text('calls_with', { enum: CALLS_WITH }).notNull().default('browser'),
  /** How they are told of what comes in: by a sound, by the browser's own notifications. */
  chimes: boolean('chimes').notNull().default(true),
  notifies: boolean('notifies').notNull().default(false),
  /** Of which kinds nothing knocks at them, and at whom it knocks instead when they do not come. */
  knocksOff: jsonb('knocks_off').$type<KnockKind[]>().notNull().default([]),
  /** After so long somebody who waits for them is mailed; null: never. */
  mailMinutes: smallint('mail_minutes'),
  standInId: id('stand_in_id').references((): AnyPgColumn => colleague.id),
  /** Whether letters and signs by themselves are keys. */
  singleKeys: boolean('single_keys').notNull().default(true),
  /** How they read times and days; null is as their browser does. */
  clockHours: smallint('clock_hours').$type<12 | 24>(),
  dayFirst: boolean('day_first'),
}, table => [...knownValues('colleague', table), check('colleague_clock_hours', sql`${table.clockHours} in (12, 24)`),
  check('colleague_helps_until', sql`(${table.role} = 'helper') = (${table.helpsUntil} is not null)`)])

export const teamMember = pgTable('team_member', {
  teamId: id('team_id').notNull().references(() => team.id),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
}, table => [primaryKey({ columns: [table.teamId, table.colleagueId] }), index('team_member_colleague').on(table.colleagueId)])

/** A sign-in, checked at each request. Only a hash of the token is kept. */
export const signIn = pgTable('sign_in', {
  tokenHash: text('token_hash').primaryKey(),
  /** By which it is listed and ended: the token is known to its browser alone. */
  id: id().notNull().unique().defaultRandom(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  endsAt: instant('ends_at').notNull(),
  /** The browser, in a few words, and the address it came from. */
  device: text('device').notNull().default(''),
  address: text('address').notNull().default(''),
}, table => [index('sign_in_colleague').on(table.colleagueId)])

/** A code of an app is asked of somebody after their password. */
export const secondStep = pgTable('second_step', {
  colleagueId: id('colleague_id').primaryKey().references(() => colleague.id),
  /** What the app makes its codes of, sealed. */
  secret: text('secret').notNull(),
  /** Since when it counts; null: nobody has typed a code of it yet. */
  confirmedAt: instant('confirmed_at'),
  /** In which period the last code held that was used: no code is used twice. */
  lastPeriod: bigint('last_period', { mode: 'number' }),
})

/** Each lets somebody in once without the app. Only hashes are kept. */
export const recoveryCode = pgTable('recovery_code', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  hash: text('hash').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.hash] })])

/** What an admin has changed in the table of rights, by role. */
export const rightChange = pgTable('right_change', {
  role: text('role', { enum: ['rep', 'lead'] }).notNull(),
  permission: text('permission').$type<Changeable>().notNull(),
  scope: text('scope', { enum: SCOPES }).notNull(),
  changedBy: id('changed_by').notNull().references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
}, table => [...knownValues('right_change', table), primaryKey({ columns: [table.role, table.permission] })])

/** What an admin has changed for one colleague, over what their role may do. */
export const personRight = pgTable('person_right', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  permission: text('permission').$type<Changeable>().notNull(),
  scope: text('scope', { enum: SCOPES }).notNull(),
  changedBy: id('changed_by').notNull().references(() => colleague.id),
  changedAt: instant('changed_at').notNull(),
}, table => [...knownValues('person_right', table), primaryKey({ columns: [table.colleagueId, table.permission] })])

/** What everybody who texts has read, in the firm's own words. A version is never changed: who has read which stands beside it. */
export const termsVersion = pgTable('terms_version', {
  version: integer('version').primaryKey(),
  words: text('words').notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
})

export const termsAccepted = pgTable('terms_accepted', {
  version: integer('version').notNull().references(() => termsVersion.version),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  at: instant('at').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.version] })])

/** A link by which somebody joins, or a colleague chooses a new password. It works once; only a hash of its key is kept. */
export const invitation = pgTable('invitation', {
  id: id().primaryKey(),
  keyHash: text('key_hash').notNull().unique(),
  /** Who chooses a new password; null for somebody who joins. */
  colleagueId: id('colleague_id').references(() => colleague.id),
  mail: text('mail').notNull(),
  name: text('name').notNull(),
  role: text('role', { enum: ROLES }).notNull(),
  /** Of somebody from outside who is to help. */
  helpsUntil: instant('helps_until'),
  title: text('title').notNull(),
  teamIds: jsonb('team_ids').$type<string[]>().notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  madeAt: instant('made_at').notNull(),
  endsAt: instant('ends_at').notNull(),
}, table => [...knownValues('invitation', table), index('invitation_ends').on(table.endsAt)])

/** With such a key, which a start prints, the first admin makes the firm. There are none once there is one. */
export const beginKey = pgTable('begin_key', {
  keyHash: text('key_hash').primaryKey(),
  madeAt: instant('made_at').notNull(),
})

/** A browser in which somebody was signed in before: the right password gets in from it, however many strangers try. */
export const knownDevice = pgTable('known_device', {
  tokenHash: text('token_hash').notNull(),
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  usedAt: instant('used_at').notNull(),
}, table => [primaryKey({ columns: [table.tokenHash, table.colleagueId] })])

/** Attempts to sign in, where several processes count them together; its columns are those of rate-limiter-flexible. */
export const signInAttempt = pgTable('sign_in_attempt', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: integer('points').notNull().default(0),
  /** Milliseconds since 1970. */
  expire: bigint('expire', { mode: 'number' }),
})

/** Sign-ins, rights, exports and the like; what happens to records is on their timelines. */
export const audit = pgTable('audit', {
  id: id().primaryKey(),
  at: instant('at').notNull(),
  colleagueId: id('colleague_id').references(() => colleague.id),
  action: text('action').notNull(),
  details: jsonb('details').$type<Record<string, unknown>>().notNull().default({}),
}, table => [index('audit_at').on(table.at)])
