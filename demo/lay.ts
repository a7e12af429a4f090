import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { once, tx, type Database } from '../server/db/door'
import * as schema from '../server/db/schema'
import { databaseUrl, startDatabase } from '../server/db/start'
import { hashPassword } from '../server/identity/password'
import { layPipelines } from '../server/records/lay-pipelines'
import { STARTING_TERMS } from '../shared/terms'
import { comeAlive } from './alive'
import { addCast, addCastMatters } from './cast'
import { COLLEAGUES, DEMO_PASSWORD, FORMAT, LINES } from './colleagues'
import { dispositionRows } from './dispositions'
import { CUSTOM_FIELDS } from './fields'
import { generate, type Staff } from './generate'
import { groupRows } from './groups'
import { addMatters, showOnMatters } from './matters'
import { moneyRows } from './money'
import { PIPELINES } from './pipelines'
import { Random } from './random'
import type { Rows } from './rows'
import { PAPERS } from './papers'
import { spokenRows } from './spoken'
import { taskRows } from './tasks'
import { TEMPLATES } from './templates'
import { viewRows } from './views'

/** Rows in one statement; more would keep everybody else waiting. */
const CHUNK = 400
const MATTERS_SEED = 21

/**
 * Lays the demo data into a data folder, or into a server's database, that has none yet.
 *
 * @returns whether anything was laid
 */
export async function layDemo(folder: string, now = new Date()): Promise<boolean> {
  if (!databaseUrl() && existsSync(join(folder, 'database', 'PG_VERSION'))) return false
  const database = await startDatabase(folder)
  try {
    const { rows: [firm] } = await once(sql`select 1 from ${schema.firm}`)
    if (firm) return false
    await fillDemo(now, join(folder, 'practice'))
    await database.pool.query('vacuum analyze')
    return true
  }
  finally {
    await database.close()
  }
}

/**
 * Throws away everything in a data folder but its keys.
 *
 * @throws Error for a server's database, which may be somebody's own
 */
export async function throwAway(folder: string): Promise<void> {
  if (databaseUrl()) throw new Error('The database of DATABASE_URL is not emptied from here. Give an empty one, or start without --fresh.')
  for (const part of ['database', 'practice', 'own-firm']) await rm(join(folder, part), { recursive: true, force: true })
}

const DAY = 86_400_000

/** When a version was written, the last one a month ago. */
const wordedAt = (last: number, version: number, now: Date) => new Date(now.getTime() - (30 + 45 * (last - version)) * DAY)

/** Fills an open, empty database. */
export async function fillDemo(now: Date, practiceFolder?: string): Promise<void> {
  const passwordHash = await hashPassword(DEMO_PASSWORD)
  const staff = await tx(database => addStaff(database, passwordHash, now))
  const rows = generate(staff, now)
  addMatters(rows, new Random(MATTERS_SEED), staff, now)
  addCast(rows, staff, now)
  addCastMatters(rows, staff, now)
  const alive = comeAlive(rows, staff, now)
  showOnMatters(rows, staff)
  await tx(database => write(database, rows))
  await tx(async (database) => {
    const { accounts, entries } = moneyRows(rows, staff)
    await database.insert(schema.moneyAccount).values(accounts)
    for (let start = 0; start < entries.length; start += CHUNK) await database.insert(schema.moneyEntry).values(entries.slice(start, start + CHUNK))
  })
  await tx(database => database.insert(schema.task).values(taskRows(rows, staff, now)))
  await tx(database => database.insert(schema.view).values(viewRows(staff, now)))
  await tx(async (database) => {
    const { groups, members } = groupRows(rows, staff, now)
    await database.insert(schema.peopleGroup).values(groups)
    await database.insert(schema.groupMember).values(members)
  })
  await tx(async (database) => {
    await database.insert(schema.call).values(alive.calls)
    await database.insert(schema.recording).values(alive.recordings)
    await database.insert(schema.callRound).values(alive.round)
    await database.insert(schema.roundPerson).values(alive.roundPeople)
    await database.insert(schema.draft).values(alive.drafts)
  })
  if (practiceFolder) writeOwners(practiceFolder, rows)
}

async function addStaff(database: Database, passwordHash: string, now: Date): Promise<Staff> {
  const teams = { sales: uuid(), recruiting: uuid() }
  const colleagues = Object.fromEntries(COLLEAGUES.map(one => [one.key, uuid()]))
  await database.insert(schema.firm).values({ name: 'Pannier & Post', country: 'US', textingOn: true })
  await database.insert(schema.team).values([{ id: teams.sales, name: 'Sales and client care' }, { id: teams.recruiting, name: 'Recruiting' }])
  await database.insert(schema.colleague).values(COLLEAGUES.map(({ key, name, mail, role, title, zone, directLine }) => ({ id: colleagues[key]!, name, firstName: name.split(' ')[0]!, mail, passwordHash, role, title, zone, directLine, ...FORMAT, seesFrom: new Date(now.getTime() - 6 * 3_600_000) })))
  await database.insert(schema.teamMember).values(COLLEAGUES.flatMap(one => one.teams.map(team => ({ teamId: teams[team], colleagueId: colleagues[one.key]! }))))
  const [rafe, readAt] = [colleagues.rafe!, new Date(now.getTime() - 60 * DAY)]
  await database.insert(schema.termsVersion).values({ version: 1, words: STARTING_TERMS, madeBy: rafe, madeAt: readAt })
  await database.insert(schema.termsAccepted).values(Object.values(colleagues).map(colleagueId => ({ version: 1, colleagueId, at: readAt })))
  await database.insert(schema.customField).values(CUSTOM_FIELDS.map((field, position) => ({ ...field, id: uuid(), position })))
  const lines = LINES.map(({ key, e164, name, country, team, colleague, private: closed, greeting = null }) => ({
    key, id: uuid(), e164, name, country, carrier: 'practice', private: closed ?? false, greeting,
    teamId: team ? teams[team] : null,
    colleagueId: colleague ? colleagues[colleague]! : null,
  }))
  await database.insert(schema.line).values(lines)
  const templates = TEMPLATES.map(({ earlier = [], ...template }) => ({ ...template, earlier, version: earlier.length + 1, id: uuid(), ownerId: colleagues.odile!, changedAt: new Date(now.getTime() - 30 * DAY) }))
  await database.insert(schema.template).values(templates)
  await database.insert(schema.templateVersion).values(templates.flatMap(({ id, version, name, body, earlier, fillIns, ownerId }) =>
    [...earlier, body].map((wording, place) => ({ templateId: id, version: place + 1, name, body: wording, fillIns, at: wordedAt(version, place + 1, now), colleagueId: ownerId }))))
  const laid = await layPipelines(PIPELINES)
  const pipelines = Object.fromEntries(PIPELINES.map(({ key }, place) => [key, laid[place]!]))
  await database.insert(schema.disposition).values(dispositionRows(Object.fromEntries(templates.map(({ name, id }) => [name, id])), pipelines, uuid))
  await database.insert(schema.firmPapers).values({ papers: PAPERS, changedBy: colleagues.rafe!, changedAt: now })
  await database.insert(schema.spokenMessage).values(spokenRows(colleagues, teams, now))
  return {
    colleagues, teams, pipelines,
    lines: Object.fromEntries(lines.map(line => [line.key, line])),
    templates: Object.fromEntries(templates.map(({ name, id, version, earlier, body }) => [name, { id, version, wordings: [...earlier, body].map((wording, place) => ({ body: wording, at: wordedAt(version, place + 1, now) })) }])),
  }
}

async function write(database: Database, rows: Rows): Promise<void> {
  const tables = [
    [schema.record, rows.records], [schema.recordPerson, rows.links], [schema.phone, rows.phones], [schema.contact, [...rows.contacts.values()]], [schema.activity, rows.activities], [schema.activityContent, rows.contents],
    [schema.activityOnRecord, rows.shown], [schema.conversation, [...rows.conversations.values()]], [schema.message, rows.messages], [schema.textMessage, rows.measured],
    [schema.consentEntry, rows.consents], [schema.numberState, [...rows.numbers.values()]],
  ] as const
  for (const [table, all] of tables) {
    for (let start = 0; start < all.length; start += CHUNK) await database.insert(table as typeof schema.record).values(all.slice(start, start + CHUNK) as never)
  }
}

/** The practice world learns whose telephone is whose, for its page of handsets. */
function writeOwners(folder: string, rows: Rows): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const names = new Map(rows.records.map(record => [record.id, record.name]))
  const owners = Object.fromEntries(rows.phones.flatMap(phone => phone.e164 && phone.kind === 'mobile' ? [[phone.e164, names.get(phone.recordId)!]] : []))
  writeFileSync(join(folder, 'owners.json'), JSON.stringify(owners), { mode: 0o600 })
}
export { COLLEAGUES, DEMO_PASSWORD } from './colleagues'
