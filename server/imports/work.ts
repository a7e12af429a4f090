import { and, eq, getTableColumns, gte, inArray, lt, sql } from 'drizzle-orm'
import { readRow, type RowReading } from '~~/core/import/read-row'
import { rowKey } from '~~/core/import/fate'
import type { Outcome } from '~~/shared/import'
import { inTurns, once, read, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { importPiece, phone, record, recordImport, recordPerson } from '../db/schema'
import { giveWay, quietFor } from '../http/quiet'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { allStages } from '../records/stages'
import { takePieceBack } from './back'
import { hashOf, knownBy, seenBefore } from './known'
import { ownersByName } from './owners'
import { Piece, readingRules, type KnownOfPiece } from './piece'
import { mattersCalled, peopleCalled } from './linked'
import { pipelinesToChoose, targetsOf } from './targets'
import { write } from './write'

type StoredImport = typeof recordImport.$inferSelect

/** For this long one claim goes on, well within its lease. */
const STRETCH_MS = 10_000

/**
 * Pieces that go together: a commit costs as much for one as for many, and who asks meanwhile waits for all of them, on a
 * server only for our own thread.
 */
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
    if (more && inTurns()) await giveWay(begun)
  }
  return settle(claim, now(), async () => more ? { dueAt: now() } : 'done')
})

/** @returns whether there may be more */
async function nextPieces({ payload }: Claim, most: number, now: () => Date): Promise<boolean> {
  return tx(async (database) => {
    const [found] = await database
      .select(getTableColumns(recordImport))
      .from(recordImport)
      .where(eq(recordImport.id, String(payload.importId)))
      .for('update')
    if (!found || (found.state !== 'running' && found.state !== 'taking-back')) return false
    const more = found.state === 'running' ? await bringIn(found, most, now()) : await takePieceBack(found, now())
    crashPoint('piece-imported')
    return more
  })
}

/** @returns whether there may be more */
async function bringIn(found: StoredImport, most: number, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const pieces = await database
      .select({ place: importPiece.place, rows: importPiece.rows })
      .from(importPiece)
      .where(and(eq(importPiece.importId, found.id), gte(importPiece.place, found.pieces), lt(importPiece.place, found.pieces + most)))
      .orderBy(importPiece.place)
    const asker = await colleagueAtWork(found.colleagueId)
    if (pieces.length === 0 || !asker) {
      await database
        .update(recordImport)
        .set({ state: pieces.length > 0 ? 'stopped' : 'done', endedAt: now })
        .where(eq(recordImport.id, found.id))
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
    update ${importPiece} set outcomes = kept.outcomes
      from jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) kept (place int, outcomes jsonb)
    where import_id = ${found.id}::uuid and import_piece.place = kept.place`)
  await tx(database => database.update(recordImport).set({
    pieces: found.pieces + pieces.length,
    done: found.done + outcomes.length,
    made: found.made + count('new'),
    joined: found.joined + count('joined'),
    leftOut: found.leftOut + count('left-out'),
    thereAlready: found.thereAlready + count('there-already'),
    refused: found.refused + count('refused'),
    partly: found.partly + outcomes.filter(outcome => 'partly' in outcome && outcome.partly).length,
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
  const stored
    = ids.length > 0
      ? await tx(database =>
          database
            .select()
            .from(record)
            .where(sql`${record.id} = any(${uuidArray(ids)})`)
            .orderBy(record.id)
            .for('update'),
        )
      : []
  const phones
    = ids.length > 0
      ? await read(database =>
          database
            .select()
            .from(phone)
            .where(sql`${phone.recordId} = any(${uuidArray(ids)})`)
            .orderBy(phone.position),
        )
      : []
  return {
    ...known,
    records: new Map(stored.map(one => [one.id, one])),
    phones: new Map(ids.map(one => [one, phones.filter(({ recordId }) => recordId === one)])),
    seen: await seenBefore(module, rows.map(row => hashOf(rowKey(row))), id),
    owners: await ownersByName(),
    stages: await allStages(module),
    pipelines: await pipelinesToChoose(module),
    people: await peopleCalled(asker, rules.country, rows.flatMap(row => row.people)),
    matters: await mattersCalled(asker, rows.flatMap(row => row.columns.about ?? [])),
    on: await onEach(rows.some(row => row.people.length > 0) ? ids : []),
  }
}

/** Who is on each of these records. */
async function onEach(recordIds: string[]): Promise<Map<string, string[]>> {
  const rows = recordIds.length > 0
    ? await read(database => database.select().from(recordPerson).where(inArray(recordPerson.recordId, recordIds)))
    : []
  return new Map(recordIds.map(id => [id, rows.flatMap(({ recordId, personId }) => recordId === id ? [personId] : [])]))
}
