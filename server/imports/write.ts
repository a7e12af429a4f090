import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { ImportTarget } from '~~/core/import/targets'
import { isShown } from '../activity/in-sql'
import { placesOf } from '../activity/places'
import { takeAlong } from '../activity/take-along'
import { writeConsent } from '../consent/ledger'
import { lockNumbers } from '../consent/number'
import { ask, once, tx } from '../db/door'
import { insertAll } from '../db/insert-all'
import { at, textArray } from '../db/instants'
import { activity, activityContent, call, conversation, importSeen, phone, record, type recordImport } from '../db/schema'
import { colleagueAtWork } from '../identity/sign-in'
import { announce } from '../live/notices'
import { COLUMN_LABELS } from '../records/changes'
import { putOn } from '../records/people'
import type { Written } from './piece'

type StoredImport = typeof recordImport.$inferSelect

/** Writes what was decided of a piece of a file: its records, their numbers, what was added to others, and the entries that tell of it. */
export async function write(
  found: StoredImport,
  { records, phones, joined, notes, puts, optedOut, seen }: Written,
  targets: ImportTarget[],
  now: Date,
): Promise<void> {
  await insertAll(record, records)
  await updateJoined(joined)
  await insertAll(phone, phones)
  const told = { importId: found.id }
  const entries = [
    ...joined.map(({ to, added }) => ({
      id: uuid(),
      recordId: to.id,
      kind: 'fields-changed' as const,
      words: null,
      content: { changes: changesOf(added, targets) },
    })),
    ...notes.map(({ recordId, words }) => ({ id: uuid(), recordId, kind: 'note' as const, words, content: null })),
  ]
  await insertAll(
    activity,
    entries.map(({ id, kind }) => ({ id, at: now, kind, colleagueId: found.colleagueId, data: told })),
  )
  await insertAll(
    activityContent,
    entries.filter(({ words, content }) => words ?? content).map(({ id, words, content }) => ({ activityId: id, words, data: content })),
  )
  await showMade(found, records)
  await showAll(entries, now)
  await putAll(found, puts, now)
  await adopt(found, phones)
  await optOut(found, optedOut, now)
  for (const { to } of joined) announce({ kind: 'record', recordId: to.id }, 'record.see', [to])
  const counts = [...seen].map(([hash, { made, seen }]) => ({ module: found.module, hash, import_id: found.id, seen, made }))
  if (counts.length > 0) {
    await once(sql`
      insert into ${importSeen} (module, hash, import_id, seen, made) select module, hash, import_id, seen, made
        from jsonb_populate_recordset(null::import_seen, ${JSON.stringify(counts)}::jsonb)
      on conflict (module, hash, import_id) do update set seen = import_seen.seen + excluded.seen, made = import_seen.made + excluded.made`)
  }
}

/** Each record once, with all that was added to it. */
async function updateJoined(joined: Written['joined']): Promise<void> {
  for (const to of new Set(joined.map(one => one.to))) {
    const { firstName, lastName, title, mail, street, city, region, postcode, country, zone, fields, tags, companyId, aboutId } = to
    const name = firstName || lastName ? [firstName, lastName].filter(Boolean).join(' ') : to.name
    await tx(database =>
      database
        .update(record)
        .set({
          firstName,
          lastName,
          name,
          title,
          mail,
          street,
          city,
          region,
          postcode,
          country,
          zone,
          fields,
          tags,
          companyId,
          aboutId,
          version: sql`${record.version} + 1`,
        })
        .where(eq(record.id, to.id)),
    )
  }
}

function changesOf({ columns, fields, tags, phoneIds, companyId, aboutId }: Written['joined'][number]['added'], targets: ImportTarget[]) {
  return [
    ...Object.entries(columns).map(([key, to]) => ({ field: key, label: COLUMN_LABELS[key] ?? key, from: null, to })),
    ...Object.entries(fields).map(([key, to]) => ({
      field: key,
      label: targets.find(target => target.key === `own.${key}`)?.label ?? key,
      from: null,
      to: String(to),
    })),
    ...(tags.length > 0 ? [{ field: 'tags', label: 'Tags', from: null, to: tags.join(', ') }] : []),
    ...(phoneIds.length > 0 ? [{ field: 'phones', label: 'Numbers', from: null, to: `${phoneIds.length} more` }] : []),
    ...(companyId ? [{ field: 'company', label: 'Company', from: null, to: 'from the file' }] : []),
    ...(aboutId ? [{ field: 'about', label: 'Belongs to', from: null, to: 'from the file' }] : []),
  ]
}

/** What the file has made shows where it comes from: one entry for all of them, once on a company too. */
async function showMade({ activityId, startedAt }: StoredImport, records: Written['records']): Promise<void> {
  const places = new Map([
    ...records.flatMap(({ id, companyId }) => companyId ? [[companyId, id] as const] : []),
    ...records.map(({ id }) => [id, null] as const),
  ])
  if (places.size === 0) return
  const given = JSON.stringify(
    [...places].map(([record_id, via_record_id]) => ({ record_id, via_record_id, at: startedAt, activity_id: activityId })),
  )
  await once(isShown(sql`select record_id, at, activity_id, via_record_id, null::uuid, null::uuid
    from jsonb_populate_recordset(null::activity_on_record, ${given}::jsonb)`))
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
    ${isShown(sql`select places.record_id, ${at(now)}, entry.activity_id, places.via, null::uuid, null::uuid from places
      join entry on entry.record_id = coalesce(places.via, places.record_id)`)}`)
}

/** Taking a file back lifts no opt-out: only the person can. */
async function optOut({ colleagueId, fileName }: StoredImport, numbers: string[], now: Date): Promise<void> {
  if (numbers.length === 0) return
  for (const [e164, { texts }] of await lockNumbers(numbers)) {
    if (texts !== 'refused')
      await writeConsent({
        e164,
        at: now,
        kind: 'refused',
        covers: 'texts',
        how: 'file',
        words: `Said so in the file ${fileName}.`,
        colleagueId,
      })
  }
}

/** Who is on what came in: told of each, on both timelines, as of anybody who is put on by hand. */
async function putAll({ id: importId, colleagueId }: StoredImport, puts: Written['puts'], now: Date): Promise<void> {
  const asker = puts.length > 0 ? await colleagueAtWork(colleagueId) : null
  if (!asker) return
  for (const { recordId, personId } of puts) await putOn(asker, recordId, personId, now, { importId })
}

/** Numbers with which somebody has written before: what was said comes onto the record. */
async function adopt({ colleagueId }: StoredImport, phones: Written['phones']): Promise<void> {
  const numbers = phones.flatMap(({ e164, recordId }) => e164 ? [{ e164, recordId }] : [])
  if (numbers.length === 0) return
  const others = textArray(numbers.map(one => one.e164))
  const { rows } = await ask<{ remote: string }>(sql`select remote from ${conversation} where remote = any(${others}) union select remote
    from ${call} where remote = any(${others})`)
  const asker = rows.length > 0 ? await colleagueAtWork(colleagueId) : null
  if (!asker) return
  for (const { remote } of rows) for (const { e164, recordId } of numbers) if (e164 === remote) await takeAlong(asker, recordId, e164)
}
