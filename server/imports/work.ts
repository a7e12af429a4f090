import { and, eq, getTableColumns, gte, lt, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { readRow, type RowReading } from '~~/core/import/read-row'
import { rowKey } from '~~/core/import/fate'
import type { ImportTarget } from '~~/core/import/targets'
import type { Outcome } from '~~/shared/import'
import { ask, inTurns, once, read, tx } from '../db/door'
import { at, textArray, uuidArray } from '../db/instants'
import { insertAll } from '../db/insert-all'
import { activity, activityContent, call, colleague, conversation, importPiece, importSeen, phone, record, recordImport, teamMember } from '../db/schema'
import { writeConsent } from '../consent/ledger'
import { lockNumbers } from '../consent/number'
import { quietFor } from '../http/quiet'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { announce } from '../live/notices'
import { COLUMN_LABELS } from '../records/changes'
import { allStages } from '../records/stages'
import { isShown } from '../activity/in-sql'
import { placesOf } from '../activity/places'
import { takeAlong } from '../activity/take-along'
import { takePieceBack } from './back'
import { hashOf, knownBy, seenBefore } from './known'
import { Piece, readingRules, type KnownOfPiece, type Written } from './piece'
import { targetsOf } from './targets'

type StoredImport = typeof recordImport.$inferSelect

/** For this long one claim goes on, well within its lease. */
const STRETCH_MS = 10_000

/** Pieces that go together: a commit costs as much for one as for many, and who asks meanwhile waits for all of them, on a server only for our own thread. */
const TOGETHER = { inTurns: { alone: 4, inCompany: 1 }, beside: { alone: 16, inCompany: 2 } }
const ALONE_AFTER_MS = 1_000

/**
 * Brings files in piece by piece. A crash loses no piece and does none twice: each commits with how far it
 * has come, under the lock of the file's own row.
 */
export const importMany: Handler = async (claims, now) => claims.map(claim => async () => {
  const until = now().getTime() + STRETCH_MS
  let more = true
  while (more && now().getTime() < until) {
    const begun = performance.now()
    const together = TOGETHER[inTurns() ? 'inTurns' : 'beside']
    more = await nextPieces(claim, quietFor() > ALONE_AFTER_MS ? together.alone : together.inCompany, now)
    const took = performance.now() - begun
    // whoever asked meanwhile has the database for as long as the work took; if nobody did, it goes on at once
    if (more && inTurns() && quietFor() < took) await new Promise(resolve => setTimeout(resolve, took))
  }
  return settle(claim, now(), async () => more ? { dueAt: now() } : 'done')
})

/** @returns whether there may be more */
async function nextPieces({ payload }: Claim, most: number, now: () => Date): Promise<boolean> {
  return tx(async (database) => {
    const [found] = await database.select(getTableColumns(recordImport)).from(recordImport).where(eq(recordImport.id, String(payload.importId))).for('update')
    if (!found || (found.state !== 'running' && found.state !== 'taking-back')) return false
    const more = found.state === 'running' ? await bringIn(found, most, now()) : await takePieceBack(found, now())
    crashPoint('piece-imported')
    return more
  })
}

/** @returns whether there may be more */
async function bringIn(found: StoredImport, most: number, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const pieces = await database.select({ place: importPiece.place, rows: importPiece.rows }).from(importPiece)
      .where(and(eq(importPiece.importId, found.id), gte(importPiece.place, found.pieces), lt(importPiece.place, found.pieces + most))).orderBy(importPiece.place)
    const asker = await colleagueAtWork(found.colleagueId)
    if (pieces.length === 0 || !asker) {
      await database.update(recordImport).set({ state: pieces.length > 0 ? 'stopped' : 'done', endedAt: now }).where(eq(recordImport.id, found.id))
      return false
    }
    const targets = await targetsOf(found.module)
    const rules = readingRules(found.module, found.headings, found.rules, targets)
    const readings = pieces.flatMap(({ rows }) => rows.map(cells => readRow(cells, rules)))
    const piece = new Piece(asker, found.module, found.rules, await knownOf(asker, found, readings), now)
    for (const reading of readings) piece.add(reading)
    await write(found, piece.written, targets, now)
    await keepOutcomes(found, pieces, piece.written.outcomes)
    return true
  })
}

/** What became of each row, and how far the file has come. */
async function keepOutcomes(found: StoredImport, pieces: { place: number, rows: unknown[] }[], outcomes: Outcome[]): Promise<void> {
  const count = (kind: Outcome['kind']) => outcomes.filter(outcome => outcome.kind === kind).length
  let start = 0
  const kept = pieces.map(({ place, rows }) => ({ place, outcomes: outcomes.slice(start, start += rows.length) }))
  await once(sql`
    update ${importPiece} set outcomes = kept.outcomes from jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) kept (place int, outcomes jsonb)
    where import_id = ${found.id}::uuid and import_piece.place = kept.place`)
  await tx(database => database.update(recordImport).set({
    pieces: found.pieces + pieces.length,
    done: found.done + outcomes.length,
    made: found.made + count('new'),
    joined: found.joined + count('joined'),
    leftOut: found.leftOut + count('left-out'),
    thereAlready: found.thereAlready + count('there-already'),
    refused: found.refused + count('refused'),
  }).where(eq(recordImport.id, found.id)))
}

/** Everything that the database knows about the rows of a piece. */
async function knownOf(asker: SignedIn, { id, module, rules }: StoredImport, readings: RowReading[]): Promise<KnownOfPiece> {
  const rows = readings.flatMap(reading => reading.ok ? [reading.row] : [])
  const asked = (by: keyof typeof rules.duplicates, values: string[]) => rules.duplicates[by] === 'keep-both' ? [] : values
  const known = await knownBy(asker, module, {
    numbers: asked('number', rows.flatMap(row => row.phones.flatMap(one => one.e164 ?? []))),
    mails: asked('mail', rows.flatMap(row => row.columns.mail ?? [])),
    names: asked('name', rows.map(row => row.name)),
    companies: rows.flatMap(row => row.columns.company ?? []),
  })
  const ids = [...new Set([known.numbers, known.mails, known.names].flatMap(found => [...found.values()].map(one => one.id)))]
  const stored = ids.length > 0 ? await tx(database => database.select().from(record).where(sql`${record.id} = any(${uuidArray(ids)})`).orderBy(record.id).for('update')) : []
  const phones = ids.length > 0 ? await read(database => database.select().from(phone).where(sql`${phone.recordId} = any(${uuidArray(ids)})`).orderBy(phone.position)) : []
  return {
    ...known,
    records: new Map(stored.map(one => [one.id, one])),
    phones: new Map(ids.map(one => [one, phones.filter(({ recordId }) => recordId === one)])),
    seen: await seenBefore(module, rows.map(row => hashOf(rowKey(row))), id),
    owners: await ownersByName(),
    stages: await allStages(module),
  }
}

/** Colleagues by id, name and mail address; who is in no team can own nothing that others would see. */
async function ownersByName(): Promise<KnownOfPiece['owners']> {
  const { rows } = await ask<{ id: string, name: string, mail: string, team_id: string }>(sql`
    select c.id, c.name, c.mail, (select m.team_id from ${teamMember} m where m.colleague_id = c.id order by m.team_id limit 1) as team_id from ${colleague} c`)
  return new Map(rows.filter(({ team_id }) => team_id).flatMap(({ id, name, mail, team_id }) => [id, name.toLowerCase(), mail.toLowerCase()].map(key => [key, { ownerId: id, teamId: team_id }] as const)))
}

async function write(found: StoredImport, { records, phones, joined, notes, optedOut, seen }: Written, targets: ImportTarget[], now: Date): Promise<void> {
  await insertAll(record, records)
  await updateJoined(joined)
  await insertAll(phone, phones)
  const told = { importId: found.id }
  const entries = [
    ...joined.map(({ to, added }) => ({ id: uuid(), recordId: to.id, kind: 'fields-changed' as const, words: null, content: { changes: changesOf(added, targets) } })),
    ...notes.map(({ recordId, words }) => ({ id: uuid(), recordId, kind: 'note' as const, words, content: null })),
  ]
  await insertAll(activity, entries.map(({ id, kind }) => ({ id, at: now, kind, colleagueId: found.colleagueId, data: told })))
  await insertAll(activityContent, entries.filter(({ words, content }) => words ?? content).map(({ id, words, content }) => ({ activityId: id, words, data: content })))
  await showMade(found, records)
  await showAll(entries, now)
  await adopt(found, phones)
  await optOut(found, optedOut, now)
  for (const { to } of joined) announce({ kind: 'record', recordId: to.id }, 'record.see', [to])
  const counts = [...seen].map(([hash, { made, seen }]) => ({ module: found.module, hash, import_id: found.id, seen, made }))
  if (counts.length > 0) {
    await once(sql`
      insert into ${importSeen} (module, hash, import_id, seen, made) select module, hash, import_id, seen, made from jsonb_populate_recordset(null::import_seen, ${JSON.stringify(counts)}::jsonb)
      on conflict (module, hash, import_id) do update set seen = import_seen.seen + excluded.seen, made = import_seen.made + excluded.made`)
  }
}

/** Each record once, with all that was added to it. */
async function updateJoined(joined: Written['joined']): Promise<void> {
  for (const to of new Set(joined.map(one => one.to))) {
    const { firstName, lastName, title, mail, street, city, region, postcode, country, zone, fields, tags, companyId } = to
    const name = firstName || lastName ? [firstName, lastName].filter(Boolean).join(' ') : to.name
    await tx(database => database.update(record).set({ firstName, lastName, name, title, mail, street, city, region, postcode, country, zone, fields, tags, companyId, version: sql`${record.version} + 1` }).where(eq(record.id, to.id)))
  }
}

function changesOf({ columns, fields, tags, phoneIds, companyId }: Written['joined'][number]['added'], targets: ImportTarget[]) {
  return [
    ...Object.entries(columns).map(([key, to]) => ({ field: key, label: COLUMN_LABELS[key] ?? key, from: null, to })),
    ...Object.entries(fields).map(([key, to]) => ({ field: key, label: targets.find(target => target.key === `own.${key}`)?.label ?? key, from: null, to: String(to) })),
    ...(tags.length > 0 ? [{ field: 'tags', label: 'Tags', from: null, to: tags.join(', ') }] : []),
    ...(phoneIds.length > 0 ? [{ field: 'phones', label: 'Numbers', from: null, to: `${phoneIds.length} more` }] : []),
    ...(companyId ? [{ field: 'company', label: 'Company', from: null, to: 'from the file' }] : []),
  ]
}

/** What the file has made shows where it comes from: one entry for all of them, once on a company too. */
async function showMade({ activityId, startedAt }: StoredImport, records: Written['records']): Promise<void> {
  const places = new Map([
    ...records.flatMap(({ id, companyId }) => companyId ? [[companyId, id] as const] : []),
    ...records.map(({ id }) => [id, null] as const),
  ])
  if (places.size === 0) return
  const given = JSON.stringify([...places].map(([record_id, via_record_id]) => ({ record_id, via_record_id, at: startedAt, activity_id: activityId })))
  await once(isShown(sql`select record_id, at, activity_id, via_record_id, null::uuid, null::uuid from jsonb_populate_recordset(null::activity_on_record, ${given}::jsonb)`))
}

async function showAll(entries: { id: string, recordId: string }[], now: Date): Promise<void> {
  if (entries.length === 0) return
  const given = JSON.stringify(entries.map(({ id, recordId }) => ({ activity_id: id, record_id: recordId })))
  await once(sql`
    with entry as (
      select * from jsonb_to_recordset(${given}::jsonb) e (activity_id uuid, record_id uuid)
    ), holders as (
      select r.id, r.company_id, null::uuid as along_line_id from ${record} r where r.id = any(array(select distinct record_id from entry))
    ), places as (
      ${placesOf(sql`holders`)}
    )
    ${isShown(sql`select places.record_id, ${at(now)}, entry.activity_id, places.via, null::uuid, null::uuid from places join entry on entry.record_id = coalesce(places.via, places.record_id)`)}`)
}

/** Taking a file back lifts no opt-out: only the person can. */
async function optOut({ colleagueId, fileName }: StoredImport, numbers: string[], now: Date): Promise<void> {
  if (numbers.length === 0) return
  for (const [e164, { texts }] of await lockNumbers(numbers)) {
    if (texts !== 'refused') await writeConsent({ e164, at: now, kind: 'refused', covers: 'texts', how: 'file', words: `Said so in the file ${fileName}.`, colleagueId })
  }
}

/** Numbers with which somebody has written before: what was said comes onto the record. */
async function adopt({ colleagueId }: StoredImport, phones: Written['phones']): Promise<void> {
  const numbers = phones.flatMap(({ e164, recordId }) => e164 ? [{ e164, recordId }] : [])
  if (numbers.length === 0) return
  const others = textArray(numbers.map(one => one.e164))
  const { rows } = await ask<{ remote: string }>(sql`select remote from ${conversation} where remote = any(${others}) union select remote from ${call} where remote = any(${others})`)
  const asker = rows.length > 0 ? await colleagueAtWork(colleagueId) : null
  if (!asker) return
  for (const { remote } of rows) for (const { e164, recordId } of numbers) if (e164 === remote) await takeAlong(asker, recordId, e164)
}
