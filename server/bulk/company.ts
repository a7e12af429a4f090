import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { ask, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { bulkCompany, bulkPerson, bulkText, record } from '../db/schema'
import { appendEntry, setContent } from '../activity/append'
import type { StoredBulk } from './one'

/**
 * On a company a bulk text stands once, with how many of its people it went to: not once for each of them. In the transaction
 * around, which holds the bulk text's lock.
 */
export async function showOnCompany(bulk: Pick<StoredBulk, 'id' | 'name' | 'madeBy'>, recordId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [person] = await database.select({ companyId: record.companyId }).from(record).where(eq(record.id, recordId))
    const companyId = person?.companyId
    if (!companyId) return
    const [there] = await database.select().from(bulkCompany)
      .where(and(eq(bulkCompany.bulkId, bulk.id), eq(bulkCompany.companyId, companyId)))
    if (there) return countOnCompanies(bulk.id, [recordId])
    const activityId = uuid()
    await appendEntry({
      id: activityId, at: now, kind: 'bulk-sent', colleagueId: bulk.madeBy, data: { bulkId: bulk.id }, words: bulk.name, content: { people: 1 },
    }, [companyId])
    await database.insert(bulkCompany).values({ bulkId: bulk.id, companyId, activityId, people: 1 })
  })
}

/** Counts anew, on the companies of these people, to how many it went: what is taken back went to nobody. */
export async function countOnCompanies(bulkId: string, recordIds: string[]): Promise<void> {
  const { rows } = await ask<{ activityId: string, name: string, people: number }>(sql`
    update ${bulkCompany} c set people = (select count(*)::int from ${record} r join ${bulkPerson} p on p.record_id = r.id
      where r.company_id = c.company_id and p.bulk_id = c.bulk_id and p.standing = 'texted')
    from ${bulkText} b
    where c.bulk_id = ${bulkId}::uuid and b.id = c.bulk_id
      and c.company_id in (select x.company_id from ${record} x where x.id = any(${uuidArray(recordIds)}))
    returning c.activity_id as "activityId", b.name, c.people`)
  for (const { activityId, name, people } of rows) await setContent(activityId, name, { people })
}
