import { sql } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { SharedNumber } from '~~/shared/record'
import { ask } from '../db/door'
import { phone, record } from '../db/schema'
import { seesRecord } from './visible'

const MOST = 20

/** Who else has a number of this record, of those that may be seen: a couple, a front desk. */
export async function sharedNumbers(asker: Asker, recordId: string): Promise<SharedNumber[]> {
  const { rows } = await ask<SharedNumber & Record<string, unknown>>(sql`
    select distinct p.e164, r.id, r.name from ${phone} own join ${phone} p on p.e164 = own.e164 and p.record_id <> own.record_id
      join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    where own.record_id = ${recordId}::uuid order by r.name, r.id limit ${MOST}`)
  return rows
}
