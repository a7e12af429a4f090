import { sql } from 'drizzle-orm'
import { can, type Asker, type Permission } from '~~/shared/permissions'
import { ask } from '../db/door'
import { activityOnRecord, record } from '../db/schema'
import { mayRead } from './entries'
import { seesRecord } from './visible'

/** The records on which an entry shows to somebody who may do this with them. */
export async function placesShown(asker: Asker, entryId: string, permission: Permission) {
  const { rows } = await ask<{ recordId: string, ownerId: string, teamId: string }>(sql`
    select r.id as "recordId", r.owner_id as "ownerId", r.team_id as "teamId" from ${activityOnRecord} s
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    where s.activity_id = ${entryId}::uuid and ${mayRead(asker)}`)
  return rows.filter(one => can(asker, permission, one))
}
