import { Readable } from 'node:stream'
import { sql, type SQL } from 'drizzle-orm'
import { writeCsv } from '~~/core/formats/write-csv'
import { addDays, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { AUDIT_GROUPS, type AuditEntry, type AuditPage } from '~~/shared/audit'
import { can } from '~~/shared/permissions'
import type { AuditExport, AuditQuery } from '~~/shared/schemas/audit'
import { ask } from '../db/door'
import { at, milliseconds, textArray } from '../db/instants'
import { audit, colleague, line, record } from '../db/schema'
import { notAllowed } from '../http/problem'
import { note } from './audit'
import type { SignedIn } from './sign-in'

const PAGE = 50
/** A file is read in larger pieces. */
const PIECE = 1_000

/** A page of the audit log, the newest first. */
export async function readAudit(asker: SignedIn, { after, ...asked }: AuditQuery): Promise<AuditPage> {
  mustSee(asker)
  return pageOf(asker, asked, after, PAGE)
}

/** All of it that is asked for, as CSV (RFC 4180), in the time of the world. That it was taken out is noted too. */
export async function exportAudit(asker: SignedIn, asked: AuditExport, now: Date): Promise<Readable> {
  mustSee(asker)
  await note('audit-exported', asker.id, now, Object.fromEntries(Object.entries(asked).filter(([, value]) => value)))
  return Readable.from(asCsv(asker, asked))
}

async function* asCsv(asker: SignedIn, asked: AuditExport): AsyncGenerator<string> {
  yield `\uFEFF${writeCsv([['Time (UTC)', 'By', 'Action', 'What', 'Details']])}`
  for (let after: string | null = null; ;) {
    const { entries, next }: AuditPage = await pageOf(asker, asked, after, PIECE)
    yield writeCsv(entries.map(({ at: when, by, action, what, details }) =>
      [new Date(when).toISOString(), by ?? '', action, what ?? '', Object.keys(details).length > 0 ? JSON.stringify(details) : '']))
    if (!next) return
    after = next
  }
}

/** What somebody did to something is told by its name, as it is called now, where the log has only its id. */
const named = (key: string, from: SQL): SQL =>
  sql`(select x.name from ${from} x where x.id = case when e.details ->> ${key} ~ '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' then (e.details ->> ${key})::uuid end)`

async function pageOf(asker: SignedIn, asked: AuditExport, after: string | null, size: number): Promise<AuditPage> {
  const { rows } = await ask<AuditEntry & Record<string, unknown>>(sql`
    select e.id, ${milliseconds(sql`e.at`)} as at, e.action, c.name as by,
      coalesce(${named('colleagueId', sql`${colleague}`)}, ${named('recordId', sql`${record}`)}, ${named('lineId', sql`${line}`)}) as what, e.details
    from ${audit} e left join ${colleague} c on c.id = e.colleague_id
    where ${which(asker, asked)}
      and ${after ? sql`(e.at, e.id) < (select b.at, b.id from ${audit} b where b.id = ${after}::uuid)` : sql`true`}
    order by e.at desc, e.id desc limit ${sql.raw(String(size + 1))}`)
  const entries = rows.slice(0, size)
  return { entries, next: rows.length > size ? entries.at(-1)!.id : null }
}

/** Days are those of whoever asks. */
function which({ zone: name }: SignedIn, { group, by, words, from, to }: AuditExport): SQL {
  const zone = zoneRules(name)!
  const like = `%${words.replace(/[\\%_]/g, '\\$&')}%`
  return sql.join([
    sql`true`,
    ...group ? [sql`e.action = any(${textArray(AUDIT_GROUPS[group])})`] : [],
    ...by ? [sql`e.colleague_id = ${by}::uuid`] : [],
    ...from ? [sql`e.at >= ${at(dayStart(zone, from))}`] : [],
    ...to ? [sql`e.at < ${at(dayStart(zone, addDays(to, 1)))}`] : [],
    ...words ? [sql`(e.action ilike ${like} or e.details::text ilike ${like})`] : [],
  ], sql` and `)
}

function mustSee(asker: SignedIn): void {
  if (!can(asker, 'audit.see', {})) throw notAllowed('read the audit log; an admin does')
}
