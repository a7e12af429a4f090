import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { ask, tx } from '../db/door'
import { uuidArray } from '../db/instants'
import { bulkCompany, bulkPerson, record } from '../db/schema'
import { appendEntry, setContent } from '../activity/append'
import type { StoredBulk } from './one'

interface OnCompany extends Record<string, unknown> { companyId: string, activityId: string | null, people: number }

/**
 * On a company a bulk text stands once, with how many of its people it went to: not once for each of them. It is written or counted anew
 * where that has changed; what is taken back went to nobody.
 *
 * @param recordIds of which people's companies; null: of all
 */
export async function showOnCompanies(
  bulk: Pick<StoredBulk, 'id' | 'name' | 'madeBy'>,
  recordIds: string[] | null,
  now: Date,
): Promise<void> {
  const theirs = recordIds ? sql`r.id = any(${uuidArray(recordIds)})` : sql`r.id in (select p.record_id from ${bulkPerson} p where p.bulk_id = ${bulk.id}::uuid)`
  await tx(async (database) => {
    const { rows } = await ask<OnCompany>(sql`
      select c.company_id as "companyId", c.activity_id as "activityId", c.people from (
        select x.company_id, b.activity_id, b.people as shown, (select count(*)::int from ${record} r join ${bulkPerson} p on p.record_id = r.id
          where r.company_id = x.company_id and p.bulk_id = ${bulk.id}::uuid and p.standing = 'texted') as people
        from (select distinct r.company_id from ${record} r where ${theirs} and r.company_id is not null) x
        left join ${bulkCompany} b on b.company_id = x.company_id and b.bulk_id = ${bulk.id}::uuid
      ) c where c.people <> coalesce(c.shown, 0)`)
    for (const { companyId, activityId, people } of rows) {
      if (activityId) {
        await database.update(bulkCompany).set({ people }).where(and(eq(bulkCompany.bulkId, bulk.id), eq(bulkCompany.companyId, companyId)))
        await setContent(activityId, bulk.name, { people })
        continue
      }
      const id = uuid()
      await appendEntry({
        id, at: now, kind: 'bulk-sent', colleagueId: bulk.madeBy, data: { bulkId: bulk.id }, words: bulk.name, content: { people },
      }, [companyId])
      await database.insert(bulkCompany).values({ bulkId: bulk.id, companyId, activityId: id, people })
    }
  })
}
