import { sql } from 'drizzle-orm'
import { once } from '../db/door'
import { at } from '../db/instants'
import { recordPerson, stage } from '../db/schema'
import type { StoredRecord } from './one'

/** A job that goes into another pipeline takes its candidates along: to the stage of the same name, or else to the first. */
export async function takeApplicantsAlong({ id, pipelineId }: StoredRecord, now: Date): Promise<void> {
  await once(sql`
    update ${recordPerson} l set stage_since = ${at(now)}, stage_id = (
      select s.id from ${stage} s where s.pipeline_id = ${pipelineId}::uuid
      order by s.name is distinct from (select was.name from ${stage} was where was.id = l.stage_id), s.position limit 1)
    where l.record_id = ${id}::uuid and l.stage_id is not null`)
}
