import { sql } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { RecordRow } from '~~/shared/record'
import { withOwnPlans } from '../db/own-plan'
import { visible } from '../identity/visible'
import { quickFilter } from './quick-filter'
import { ROWS, rowOf, type Row } from './rows'

const FOUND = 10

/** Records of any module by the words of their name, company or city, or by digits of a number; the ones contacted last first. */
export async function findRecords(asker: Asker, words: string): Promise<RecordRow[]> {
  if (words === '') return []
  const mine = visible(asker, 'record.see', { owner: sql`r.owner_id`, team: sql`r.team_id` })
  const { rows } = await withOwnPlans(database => database.execute<Row>(sql`${ROWS} where ${mine} and ${quickFilter(words)} order by r.last_contact_at desc nulls last, r.id limit ${sql.raw(String(FOUND))}`))
  return rows.map(rowOf)
}
