import { sql, type SQL } from 'drizzle-orm'
import { phone } from '../db/schema'

/** Every word is in the name, the company, the city or the stage; digits alone are part of a number, however typed. */
export function quickFilter(words: string): SQL {
  const typedNumber = /^[\d\s().+-]+$/.test(words) ? words.replace(/\D/g, '') : ''
  if (typedNumber.length >= 3) return sql`exists (select 1 from ${phone} x where x.record_id = r.id and x.e164 like ${`%${typedNumber.replace(/^0+/, '')}%`})`
  const conditions = words.split(/\s+/).filter(Boolean).map((word) => {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
    return sql`(r.name ilike ${like} or company.name ilike ${like} or r.city ilike ${like} or r.stage ilike ${like})`
  })
  return conditions.length > 0 ? sql.join(conditions, sql` and `) : sql`true`
}
