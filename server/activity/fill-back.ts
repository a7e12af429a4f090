import { sql } from 'drizzle-orm'
import { once } from '../db/door'
import { at } from '../db/instants'
import { activityOnRecord, contact, record } from '../db/schema'
import { addJob } from '../jobs/add'
import { FILL_BACK } from '../jobs/kinds'
import { settle, type Claim, type Handler, type Outcome } from '../jobs/outbox'
import { announce } from '../live/notices'
import { contacted } from './contact'
import { isShown } from './in-sql'

const PIECE = 100

/**
 * A link was made late: what happened with a person comes onto the timeline of what the person belongs to,
 * piece by piece, by a job.
 *
 * @param since nothing older; everything, if null
 */
export async function fillBack(recordId: string, personId: string, since: Date | null, now: Date): Promise<void> {
  await addJob({
    kind: FILL_BACK,
    key: `${recordId} ${personId} ${now.getTime()}`,
    lane: recordId,
    payload: { recordId, personId, since: since?.toISOString() ?? null },
    dueAt: now,
  })
}

export const fillBackMany: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), () => nextPiece(claim, now)))

/** The newest that are not there yet. A crash loses nothing: what is there already is not looked for again. */
async function nextPiece({ payload: { recordId, personId, since } }: Claim, now: () => Date): Promise<Outcome> {
  const begun = now()
  const { rows } = await once<{ activity_id: string, owner_id: string, team_id: string }>(sql`
    with missing as (
      select s.activity_id, s.at, s.private_line_id, s.along_line_id from ${activityOnRecord} s
      where s.record_id = ${String(personId)}::uuid and s.via_record_id is null
        and ${since ? sql`s.at >= ${at(new Date(String(since)))}` : sql`true`}
        and not exists (select 1 from ${activityOnRecord} there where there.record_id = ${String(recordId)}::uuid and there.at = s.at
          and there.activity_id = s.activity_id)
      order by s.at desc limit ${sql.raw(String(PIECE))}
    ), shown as (
      ${isShown(sql`select ${String(recordId)}::uuid, at, activity_id, ${String(personId)}::uuid, private_line_id, along_line_id
        from missing`)}
    ), contacted as (
      ${contacted(sql`
        select ${String(recordId)}::uuid as record_id, p.at from ${contact} p
        where p.record_id = ${String(personId)}::uuid and ${since ? sql`p.at >= ${at(new Date(String(since)))}` : sql`true`}`)}
    )
    select missing.activity_id, r.owner_id, r.team_id from missing join ${record} r on r.id = ${String(recordId)}::uuid`)
  const [first] = rows
  if (first) announce({ kind: 'record', recordId: String(recordId) }, 'record.see', [{ ownerId: first.owner_id, teamId: first.team_id }])
  return rows.length < PIECE ? 'done' : { dueAt: new Date(2 * now().getTime() - begun.getTime()) }
}
