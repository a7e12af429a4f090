import { and, eq, inArray, lt, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { plainHeading, takesSeveral, type ImportTarget } from '~~/core/import/targets'
import { PIECE_ROWS, type ImportProgress } from '~~/shared/import'
import { can } from '~~/shared/permissions'
import type { ImportForm, RowsForm } from '~~/shared/schemas/import'
import { ask, once, tx } from '../db/door'
import { importMatching, importPiece, recordImport } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { IMPORT } from '../jobs/kinds'
import { belongingTo } from '../records/owner'
import { appendEntry } from '../activity/append'
import { progressOf } from './progress'
import { targetsOf } from './targets'

type StoredImport = typeof recordImport.$inferSelect

const DAY = 86_400_000

/**
 * Announces a file, and remembers what its columns are for the next one. Its rows come afterwards, piece
 * by piece; nothing is made before all of them are here. Sending the same again begins nothing more.
 */
export async function beginImport(asker: SignedIn, form: ImportForm, now: Date): Promise<ImportProgress> {
  const { id, module, fileName, headings, total, rules } = form
  const targets = await targetsOf(module)
  mustMatch(form, targets)
  return tx(async (database) => {
    const belonging = await belongingTo(rules.ownerId, asker.teamIds[0] ?? null)
    if (!can(asker, 'record.import', belonging)) throw notAllowed('bring records in for this colleague')
    // files whose rows never all came
    await database
      .delete(recordImport)
      .where(and(eq(recordImport.state, 'loading'), lt(recordImport.madeAt, new Date(now.getTime() - DAY))))
    await database
      .insert(recordImport)
      .values({ id, module, colleagueId: asker.id, fileName, headings, rules, state: 'loading', total, madeAt: now })
      .onConflictDoNothing()
    for (const [i, heading] of headings.entries()) {
      const values = { target: rules.matching[i] ?? null }
      await database.insert(importMatching).values({ colleagueId: asker.id, module, heading: plainHeading(heading), ...values })
        .onConflictDoUpdate({ target: [importMatching.colleagueId, importMatching.module, importMatching.heading], set: values })
    }
    return progressOf(asker, id)
  })
}

function mustMatch({ headings, rules: { matching } }: ImportForm, targets: ImportTarget[]): void {
  if (matching.length !== headings.length)
    throw badInput({ 'rules.matching': 'Say of each column what it becomes, or that it is left out.' })
  const unknown = matching.find(key => key !== null && !targets.some(target => target.key === key))
  if (unknown) throw badInput({ 'rules.matching': `There is no field “${unknown}” here. Choose another one for that column.` })
  const twice = matching.find(
    (key, i) => key !== null && matching.indexOf(key) !== i && !takesSeveral(targets.find(target => target.key === key)!),
  )
  if (twice)
    throw badInput({ 'rules.matching': `Two columns become “${targets.find(({ key }) => key === twice)!.label}”. Leave one of them out.` })
  if (matching.every(key => key === null)) throw badInput({ 'rules.matching': 'Say of at least one column what it becomes.' })
}

/** Takes some pieces of a file's rows; those that are there already are not taken again. */
export async function takeRows(asker: SignedIn, id: string, { place, rows }: RowsForm): Promise<{ taken: number }> {
  return tx(async () => {
    const { state, total } = await held(asker, id)
    if (state !== 'loading') throw conflict('too-late', 'Too late', 'All rows of this file have come already.')
    if (place * PIECE_ROWS + rows.length > total) throw badInput({ rows: `The file was said to have ${total} rows, and these are more.` })
    const pieces = Array.from({ length: Math.ceil(rows.length / PIECE_ROWS) }, (_, i) => ({
      import_id: id,
      place: place + i,
      rows: rows.slice(i * PIECE_ROWS, (i + 1) * PIECE_ROWS),
    }))
    await once(sql`insert into ${importPiece} (import_id, place, rows) select import_id, place, rows
      from jsonb_populate_recordset(null::import_piece, ${JSON.stringify(pieces)}::jsonb) on conflict do nothing`)
    return { taken: rows.length }
  })
}

/** @throws Problem 409 while rows are missing */
export async function startImport(asker: SignedIn, id: string, now: Date): Promise<ImportProgress> {
  return tx(async (database) => {
    const { state, total, module, fileName } = await held(asker, id)
    if (state === 'loading') {
      const { rows: [counted] } = await ask<{ rows: number }>(sql`select coalesce(sum(jsonb_array_length(rows)), 0)::int as rows
        from ${importPiece} where import_id = ${id}::uuid`)
      if (counted!.rows !== total)
        throw conflict('rows-missing', 'Rows are missing', `${counted!.rows} of ${total} rows have come. Send the others first.`)
      const activityId = uuid()
      await appendEntry({ id: activityId, at: now, kind: 'record-made', colleagueId: asker.id, data: { importId: id } }, [])
      await database.update(recordImport).set({ state: 'running', activityId, startedAt: now }).where(eq(recordImport.id, id))
      await note('imported', asker.id, now, { importId: id, module, fileName, count: total })
      await goOn(id, now)
    }
    return progressOf(asker, id)
  })
}

/** Goes no further; what has been made stays until it is taken back. */
export async function stopImport(asker: SignedIn, id: string, now: Date): Promise<ImportProgress> {
  return turn(asker, id, ['running'], { state: 'stopped', endedAt: now })
}

/** Takes everything back that the file has made or added, but what somebody has worked with since. */
export async function takeImportBack(asker: SignedIn, id: string, now: Date): Promise<ImportProgress> {
  return tx(async () => {
    const progress = await turn(asker, id, ['done', 'stopped'], { state: 'taking-back', endedAt: null })
    await note('import-taken-back', asker.id, now, { importId: id })
    await goOn(id, now)
    return progress
  })
}

async function turn(asker: SignedIn, id: string, from: StoredImport['state'][], values: Partial<StoredImport>): Promise<ImportProgress> {
  return tx(async (database) => {
    const [turned] = await database.update(recordImport).set(values)
      .where(and(eq(recordImport.id, id), eq(recordImport.colleagueId, asker.id), inArray(recordImport.state, from)))
      .returning({ id: recordImport.id })
    const progress = await progressOf(asker, id)
    if (!turned) throw conflict('too-late', 'Too late', `This import is ${progress.state.replace('-', ' ')} already.`)
    return progress
  })
}

async function goOn(id: string, now: Date): Promise<void> {
  await addJob({ kind: IMPORT, key: `${id} ${now.getTime()}`, lane: id, payload: { importId: id }, dueAt: now })
}

async function held(asker: SignedIn, id: string): Promise<StoredImport> {
  const [found] = await tx(database =>
    database
      .select()
      .from(recordImport)
      .where(and(eq(recordImport.id, id), eq(recordImport.colleagueId, asker.id)))
      .for('update'),
  )
  if (!found) throw notFound('import')
  return found
}
