import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { ask, once } from '../db/door'
import { activityOnRecord, call, conversation, line, message, phone, record } from '../db/schema'

interface Between {
  lineId: SQLWrapper
  remote: SQLWrapper
  /** Whom it is meant for, where somebody has chosen; null leaves it open. */
  recordId: SQLWrapper
}

/**
 * The records that hold a number, for what goes over a line to or from it: `id`, `company_id`, and `along_line_id`, which
 * is null for those that it is with and the line for the others. It is with whom it was meant for; else with
 * whom the line spoke last under that number; else with those in the line's reach; else with all.
 *
 * Whoever writes a number down that somebody else has thus gets nothing of what is said with them.
 */
export const holdersOf = ({ lineId, remote, recordId }: Between): SQL => sql`
  select h.id, h.company_id, case when h.with_it then null::uuid else ${lineId}::uuid end as along_line_id
  from (
    select one.id, one.company_id, case
      when bool_or(one.meant) over () then one.meant
      when bool_or(one.spoken_with) over () then one.spoken_with
      when bool_or(one.in_reach) over () then one.in_reach
      else true end as with_it
    from (
      select distinct r.id, r.company_id,
        coalesce(r.id = ${recordId}::uuid, false) as meant,
        exists (select 1 from ${activityOnRecord} o where o.activity_id = (${lastOf(lineId, remote)}) and o.record_id = r.id
          and o.via_record_id is null and o.along_line_id is null) as spoken_with,
        coalesce(r.team_id = l.team_id, false) or coalesce(r.owner_id = l.colleague_id, false) as in_reach
      from ${phone} p join ${record} r on r.id = p.record_id join ${line} l on l.id = ${lineId}::uuid
      where p.e164 = ${remote}
    ) one
  ) h`

/** The newest text or call between a line and a number. */
const lastOf = (lineId: SQLWrapper, remote: SQLWrapper): SQL => sql`
  select last.activity_id from (
    (select m.activity_id, m.made_at from ${message} m join ${conversation} v on v.id = m.conversation_id
      where v.line_id = ${lineId}::uuid and v.remote = ${remote} order by m.made_at desc limit 1)
    union all
    (select k.activity_id, k.made_at from ${call} k where k.remote = ${remote} and k.line_id = ${lineId}::uuid order by k.made_at desc
      limit 1)
  ) last order by last.made_at desc limit 1`

/** With which records something is that comes from a number over a line, and which others hold that number. */
export async function withWhom(
  lineId: string,
  remote: string,
  recordId: string | null = null,
): Promise<{ with: string[], along: string[] }> {
  const { rows } = await ask<{ id: string, along_line_id: string | null }>(sql`
    ${holdersOf({ lineId: sql`${lineId}`, remote: sql`${remote}`, recordId: sql`${recordId}` })} order by h.id`)
  return {
    with: rows.filter(row => !row.along_line_id).map(row => row.id),
    along: rows.filter(row => row.along_line_id).map(row => row.id),
  }
}

/** From now on an entry is with one of the records where it stands, and shows on the others besides. */
export async function beWith(activityId: string, recordId: string, lineId: string): Promise<void> {
  await once(sql`
    update ${activityOnRecord} set along_line_id = case when coalesce(via_record_id, record_id) = ${recordId}::uuid then null
      else ${lineId}::uuid end
    where activity_id = ${activityId}::uuid`)
}
