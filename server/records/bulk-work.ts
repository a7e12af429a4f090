import { asc, eq, getTableColumns, sql, type SQL } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { once, read, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { bulkChange, bulkChangeBefore, record } from '../db/schema'
import { crashPoint } from '../jobs/crash-points'
import { settle, type Claim, type Handler, type Outcome } from '../jobs/outbox'
import { announce } from '../live/notices'
import { happens, isSaid, isShown } from '../activity/in-sql'
import { placesOf } from '../activity/places'
import { effectOf } from './bulk-effects'
import { announceGroup } from './groups/one'

/** With one session everybody waits for a piece, so it is small, and the pause after it is as long as it took. */
const PIECE = 100

/** Changes many records piece by piece. A crash loses no piece and does none twice: each commits with how far it has come. */
export const changeMany: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), () => nextPiece(claim, now)))

async function nextPiece(claim: Claim, now: () => Date): Promise<Outcome> {
  const begun = now()
  return tx(async (database) => {
    const { recordIds: _all, ...columns } = getTableColumns(bulkChange)
    const [bulk] = await database
      .select({ ...columns, piece: sql<string[]>`${bulkChange.recordIds}[${bulkChange.done} + 1 : ${bulkChange.done} + ${PIECE}]::text[]` })
      .from(bulkChange).where(eq(bulkChange.id, String(claim.payload.bulkId))).for('update')
    if (!bulk || (bulk.state !== 'running' && bulk.state !== 'taking-back')) return 'done'
    const back = bulk.state === 'taking-back'
    const ids = back ? await keptOf(bulk.id, bulk.done) : bulk.piece
    const changed = ids.length > 0 ? await changePiece(bulk, ids, back, begun) : 0
    crashPoint('piece-changed')
    const ended = ids.length < PIECE
    await database
      .update(bulkChange)
      .set({
        done: bulk.done + ids.length,
        changed: bulk.changed + changed,
        ...(ended && { state: back ? ('taken-back' as const) : ('done' as const), endedAt: now() }),
      })
      .where(eq(bulkChange.id, bulk.id))
    return ended ? 'done' : { dueAt: new Date(2 * now().getTime() - begun.getTime()) }
  })
}

async function keptOf(bulkId: string, done: number): Promise<string[]> {
  const rows = await read(database =>
    database
      .select({ id: bulkChangeBefore.recordId })
      .from(bulkChangeBefore)
      .where(eq(bulkChangeBefore.bulkId, bulkId))
      .orderBy(asc(bulkChangeBefore.recordId))
      .offset(done)
      .limit(PIECE),
  )
  return rows.map(({ id }) => id)
}

/** One piece in one statement: the records, what they were, and an entry on the timeline of each and wherever it shows besides. */
async function changePiece(
  bulk: Pick<typeof bulkChange.$inferSelect, 'id' | 'change' | 'colleagueId'>,
  ids: string[],
  back: boolean,
  now: Date,
): Promise<number> {
  const { differs, change, before, still, giveBack, words, entry } = effectOf(bulk.change, now)
  const { does, besides } = back ? giveBack : change
  const isInWords = entry.kind !== 'fields-changed'
  const keep: SQL = back
    ? sql``
    : sql`, kept as (insert into ${bulkChangeBefore} (bulk_id, record_id, before) select ${bulk.id}::uuid, id, before from was)`
  const told = JSON.stringify({ bulkId: bulk.id, ...(back && { takenBack: true }) })
  const inWords = sql`'from', was.words, 'to', now_is.words`
  const { rows } = await once<{ id: string, owner_id: string, team_id: string, activity_id: string }>(sql`
    with chosen as (
      select * from unnest(${uuidArray(ids)}, ${uuidArray(ids.map(() => uuid()))}) c (id, activity_id)
    ), was as (
      select r.id, r.company_id, null::uuid as along_line_id, c.activity_id, ${words} as words, ${back ? sql`k.before` : before} as before
      from ${record} r join chosen c on c.id = r.id ${
        back
          ? sql`join ${bulkChangeBefore} k on k.record_id = r.id and k.bulk_id = ${bulk.id}::uuid`
          : sql``
      }
      where ${back ? still : differs} for update of r
    ), now_is as (
      ${does}
    )${besides ? sql`, besides as (${besides})` : sql``}${keep}, happened as (
      ${happens(sql`
        select was.activity_id, ${at(now)}, ${entry.kind}::text, ${bulk.colleagueId}::uuid, null::uuid,
          ${told}::jsonb ${isInWords ? sql`|| jsonb_build_object(${inWords})` : sql``}
        from was join now_is on now_is.id = was.id`)}
    )${
      isInWords
        ? sql``
        : sql`, said as (
      ${isSaid(sql`
        select was.activity_id, null::text, jsonb_build_object('changes',
            jsonb_build_array(jsonb_build_object('field', ${entry.field}::text, 'label', ${entry.label}::text, ${inWords})))
        from was join now_is on now_is.id = was.id`)}
    )`
    }, places as (
      ${placesOf(sql`was`)}
    ), shown as (
      ${isShown(sql`select places.record_id, ${at(now)}, was.activity_id, places.via, null::uuid, null::uuid from places
        join was on was.id = coalesce(places.via, places.record_id)`)}
    )
    select now_is.id, now_is.owner_id, now_is.team_id, was.activity_id from now_is join was on was.id = now_is.id`)
  if ('groupId' in bulk.change && rows.length > 0) announceGroup(bulk.change.groupId)
  for (const { id, owner_id, team_id, activity_id } of rows) {
    const belongs = [{ ownerId: owner_id, teamId: team_id }]
    announce({ kind: 'record', recordId: id }, 'record.see', belongs)
    announce({ kind: 'entry', recordId: id, activityId: activity_id }, 'record.see', belongs)
  }
  return rows.length
}
