import { sql } from 'drizzle-orm'
import type { ActivityKind } from '~~/core/timeline/kinds'
import { tx } from '../db/door'
import { activity, activityContent, activityOnRecord, record } from '../db/schema'
import { announce } from '../live/notices'

export interface NewEntry {
  id: string
  at: Date
  kind: ActivityKind
  colleagueId: string | null
  messageId?: string
  /** What happened, without anybody's words. */
  data?: Record<string, unknown>
  /** Words and values of people, which can be erased. */
  words?: string
  content?: Record<string, unknown>
  privateLineId?: string | null
}

/**
 * Adds an entry to the timelines of records, and of the companies to which they belong. It is the only
 * way onto a timeline.
 *
 * @param recordIds may be empty: the entry then waits for a record (a number on none)
 */
export async function appendEntry(entry: NewEntry, recordIds: string[]): Promise<void> {
  await tx(async (database) => {
    await database.insert(activity).values({ id: entry.id, at: entry.at, kind: entry.kind, colleagueId: entry.colleagueId, messageId: entry.messageId ?? null, data: entry.data ?? {} })
    if (entry.words !== undefined || entry.content) {
      await database.insert(activityContent).values({ activityId: entry.id, words: entry.words ?? null, data: entry.content ?? null })
    }
    await showOnRecords(entry, recordIds)
  })
}

/** Shows an entry on records and their companies; where it shows already, nothing happens. */
export async function showOnRecords(entry: Pick<NewEntry, 'id' | 'at' | 'privateLineId'>, recordIds: string[]): Promise<void> {
  if (recordIds.length === 0) return
  await tx(async (database) => {
    const records = await database
      .select({ id: record.id, companyId: record.companyId, ownerId: record.ownerId, teamId: record.teamId })
      .from(record)
      .where(sql`${record.id} = any(${`{${recordIds.join(',')}}`}::uuid[])`)
    const shown = { at: entry.at, activityId: entry.id, privateLineId: entry.privateLineId ?? null }
    const rows = records.flatMap(({ id, companyId }) => [
      { ...shown, recordId: id, viaRecordId: null },
      ...(companyId ? [{ ...shown, recordId: companyId, viaRecordId: id }] : []),
    ])
    await database.insert(activityOnRecord).values(rows).onConflictDoNothing()
    for (const { recordId } of rows) announce({ kind: 'entry', recordId, activityId: entry.id }, 'record.see', records)
  })
}
