import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Added, Outcome } from '~~/shared/import'
import { ask, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import {
  activity,
  activityContent,
  activityOnRecord,
  importPiece,
  importSeen,
  phone,
  record,
  recordImport,
  recordPerson,
} from '../db/schema'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'

type StoredImport = typeof recordImport.$inferSelect

/**
 * Takes the newest piece back that is left: records that it made go, what it added to others goes, and what
 * somebody has worked with since stays.
 *
 * @returns whether there may be more
 */
export async function takePieceBack(found: StoredImport, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const place = found.pieces - 1
    const [piece]
      = place < 0
        ? []
        : await database
            .select()
            .from(importPiece)
            .where(and(eq(importPiece.importId, found.id), eq(importPiece.place, place)))
    if (!piece) {
      await database.delete(importSeen).where(eq(importSeen.importId, found.id))
      await database.update(recordImport).set({ state: 'taken-back', done: 0, partly: 0, endedAt: now }).where(eq(recordImport.id, found.id))
      return false
    }
    const outcomes = piece.outcomes ?? []
    const made = outcomes.flatMap(outcome => outcome.kind === 'new' ? [outcome.id] : [])
    const gone = await removeUntouched(found, made)
    for (const outcome of outcomes.toReversed())
      if (outcome.kind === 'joined' && outcome.added) await takeAddedBack(found, outcome, outcome.added, now)
    await removeUntouched(found, outcomes.flatMap(outcome => 'company' in outcome && outcome.company ? [outcome.company] : []))
    await database.update(recordImport).set({
      pieces: place,
      done: found.done - piece.rows.length,
      made: found.made - gone,
      keptBack: found.keptBack + made.length - gone,
    }).where(eq(recordImport.id, found.id))
    return true
  })
}

/** Removes those of the records with which nobody has done anything since; gives how many. */
async function removeUntouched({ id, madeAt }: StoredImport, ids: string[]): Promise<number> {
  if (ids.length === 0) return 0
  const { rows } = await ask<{ id: string }>(sql`
    select r.id from ${record} r where r.id = any(${uuidArray(ids)}) and r.version = 1
      and not exists (select 1 from ${record} x where x.company_id = r.id or x.about_id = r.id)
      and not exists (
        select 1 from ${activityOnRecord} s join ${activity} a on a.id = s.activity_id
        where s.record_id = r.id and a.at >= ${at(madeAt)} and a.data ->> 'importId' is distinct from ${id}::text
      )`)
  const untouched = rows.map(one => one.id)
  if (untouched.length === 0) return 0
  return tx(async (database) => {
    await database.execute(sql`
      delete from ${activityContent} where activity_id in (
        select s.activity_id from ${activityOnRecord} s join ${activity} a on a.id = s.activity_id
          where s.record_id = any(${uuidArray(untouched)}) and a.data ->> 'importId' = ${id}::text)`)
    // who was put on one of these was told so on their own timeline
    await database.execute(sql`
      delete from ${activityOnRecord} where activity_id in (
        select s.activity_id from ${activityOnRecord} s join ${activity} a on a.id = s.activity_id
          where s.record_id = any(${uuidArray(untouched)}) and a.kind = 'put-on' and a.data ->> 'importId' = ${id}::text)`)
    // on their companies too; the entry that all of the file share stays on those that stay
    await database.execute(sql`
      delete from ${activityOnRecord} where via_record_id = any(${uuidArray(untouched)})
        and record_id = any(array(select r.company_id from ${record} r where r.id = any(${uuidArray(untouched)})
          and r.company_id is not null))`)
    await database.execute(sql`delete from ${activityOnRecord} where record_id = any(${uuidArray(untouched)})`)
    await database.delete(record).where(inArray(record.id, untouched))
    return untouched.length
  })
}

/** What a row added goes again, where it still is as the row left it. */
async function takeAddedBack(
  { id: importId, colleagueId }: StoredImport,
  { id }: Extract<Outcome, { kind: 'joined' }>,
  added: Added,
  now: Date,
): Promise<void> {
  await tx(async (database) => {
    const [stored] = await database.select().from(record).where(eq(record.id, id)).for('update')
    if (!stored) return
    const columns = Object.fromEntries(
      Object.entries(added.columns)
        .filter(([key, value]) => stored[key as 'city'] === value)
        .map(([key]) => [key, null]),
    )
    const fields = Object.fromEntries(
      Object.entries(stored.fields).filter(([key, value]) => !(key in added.fields) || value !== added.fields[key]),
    )
    const tags = stored.tags.filter(tag => !added.tags.includes(tag))
    const companyId = added.companyId && stored.companyId === added.companyId ? null : stored.companyId
    const aboutId = added.aboutId && stored.aboutId === added.aboutId ? null : stored.aboutId
    const { personIds = [] } = added
    if (personIds.length > 0)
      await database.delete(recordPerson).where(and(eq(recordPerson.recordId, id), inArray(recordPerson.personId, personIds)))
    if (added.phoneIds.length > 0) await database.delete(phone).where(inArray(phone.id, added.phoneIds))
    const after = { ...stored, ...columns }
    const name = after.firstName || after.lastName ? [after.firstName, after.lastName].filter(Boolean).join(' ') : stored.name
    await database
      .update(record)
      .set({ ...columns, name, fields, tags, companyId, aboutId, version: sql`${record.version} + 1` })
      .where(eq(record.id, id))
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'fields-changed',
        colleagueId,
        data: { importId, takenBack: true },
        content: { changes: [{ field: 'import', label: 'What a file had added', from: 'there', to: null }] },
      },
      [id],
    )
    announce({ kind: 'record', recordId: id }, 'record.see', [stored])
  })
}
