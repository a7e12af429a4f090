import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '../db/door'
import { bulkCompany, record } from '../db/schema'
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
    const [again] = await database.update(bulkCompany).set({ people: sql`${bulkCompany.people} + 1` })
      .where(and(eq(bulkCompany.bulkId, bulk.id), eq(bulkCompany.companyId, companyId)))
      .returning()
    if (again) return setContent(again.activityId, bulk.name, { people: again.people })
    const activityId = uuid()
    await appendEntry({
      id: activityId, at: now, kind: 'bulk-sent', colleagueId: bulk.madeBy, data: { bulkId: bulk.id }, words: bulk.name, content: { people: 1 },
    }, [companyId])
    await database.insert(bulkCompany).values({ bulkId: bulk.id, companyId, activityId, people: 1 })
  })
}
