import { sql } from 'drizzle-orm'
import { isMatterModule } from '~~/shared/modules'
import { once, tx } from '../db/door'
import { at } from '../db/instants'
import { activity, activityOnRecord, record } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../identity/visible'
import { announce } from '../live/notices'
import { mustHold } from '../records/one'
import { mayReadLine } from './visibility'

/**
 * Shows an entry on a deal, a job or a case as well, with whom it came from. Doing it again changes nothing.
 *
 * @throws Problem 404 for an entry that the asker may not see; 422 if the record takes none
 */
export async function showOnMatter(asker: SignedIn, entryId: string, recordId: string, now: Date): Promise<void> {
  await tx(async () => {
    const matter = await mustHold(asker, 'record.edit', recordId)
    if (!isMatterModule(matter.module)) throw badInput({ recordId: 'Choose a deal, a job or a case.' })
    const { rows: [shown] } = await once<{ at: number, record_id: string, private_line_id: string | null }>(sql`
      select (extract(epoch from s.at) * 1000)::float8 as at, s.record_id, s.private_line_id
      from ${activityOnRecord} s
      join ${activity} a on a.id = s.activity_id
      join ${record} r on r.id = s.record_id and ${visible(asker, 'record.see', { owner: sql`r.owner_id`, team: sql`r.team_id` })}
      where s.activity_id = ${entryId}::uuid and s.via_record_id is null and s.record_id <> ${recordId}::uuid and ${mayReadLine(asker, sql`s.private_line_id`)}
      order by r.id limit 1`)
    if (!shown) throw notFound('entry')
    const { rows } = await once(sql`
      insert into ${activityOnRecord} (record_id, at, activity_id, via_record_id, private_line_id)
      values (${recordId}::uuid, ${at(new Date(shown.at))}, ${entryId}::uuid, ${shown.record_id}::uuid, ${shown.private_line_id}::uuid)
      on conflict do nothing returning record_id`)
    if (rows.length === 0) return
    await note('entry-shown-on', asker.id, now, { activityId: entryId, recordId })
    announce({ kind: 'entry', recordId, activityId: entryId }, 'record.see', [matter])
  })
}
