import { sql } from 'drizzle-orm'
import type { ActivityKind } from '~~/core/timeline/kinds'
import { once, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { activity, activityContent, record } from '../db/schema'
import { announce } from '../live/notices'
import { isShown } from './in-sql'
import { placesOf } from './places'

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

/** Other records that only hold the same number, and the line it went over. */
export interface Along { recordIds: string[], lineId: string }

/**
 * Adds an entry to the timelines of records, of the companies to which they belong and of the deals, jobs
 * and cases they are on.
 *
 * @param recordIds whom it is with; may be empty: the entry then waits for a record (a number on none)
 * @param along where it shows besides, to those who may read it anyway
 */
export async function appendEntry(entry: NewEntry, recordIds: string[], along?: Along): Promise<void> {
  await tx(async (database) => {
    await database
      .insert(activity)
      .values({
        id: entry.id,
        at: entry.at,
        kind: entry.kind,
        colleagueId: entry.colleagueId,
        messageId: entry.messageId ?? null,
        data: entry.data ?? {},
      })
    if (entry.words !== undefined || entry.content) {
      await database.insert(activityContent).values({ activityId: entry.id, words: entry.words ?? null, data: entry.content ?? null })
    }
    await showOnRecords(entry, recordIds, along)
  })
}

/** Shows an entry on records, their companies and what they are on; where it shows already, nothing happens. */
export async function showOnRecords(
  entry: Pick<NewEntry, 'id' | 'at' | 'privateLineId'>,
  recordIds: string[],
  along?: Along,
): Promise<void> {
  const shownOn = [...recordIds, ...(along?.recordIds ?? [])]
  if (shownOn.length === 0) return
  const { rows } = await once<{ record_id: string, owner_id: string, team_id: string }>(sql`
    with holders as (
      select id, company_id, case when id = any(${uuidArray(recordIds)}) then null
        else ${along?.lineId ?? null}::uuid end as along_line_id from ${record} where id = any(${uuidArray(shownOn)})
    ), places as (
      ${placesOf(sql`holders`)}
    ), shown as (
      ${isShown(sql`select record_id, ${at(entry.at)}, ${entry.id}::uuid, via, ${entry.privateLineId ?? null}::uuid, along from places`)}
    )
    select shown.record_id, r.owner_id, r.team_id from shown join ${record} r on r.id = shown.record_id`)
  for (const { record_id: recordId, owner_id: ownerId, team_id: teamId } of rows)
    announce({ kind: 'entry', recordId, activityId: entry.id }, 'record.see', [{ ownerId, teamId }])
}

/** What is said in an entry, as it is now: what somebody notes in a call they go on writing. */
export async function setContent(activityId: string, words: string, data: Record<string, unknown>): Promise<void> {
  await tx(database => database.insert(activityContent).values({ activityId, words, data })
    .onConflictDoUpdate({ target: activityContent.activityId, set: { words, data } }))
}
