import { sql, type SQL } from 'drizzle-orm'
import { phone } from '../db/schema'
import { nameOfStage } from '../reading/stages'

/** Every word is in the name, the company, the city or the stage; digits alone are part of a number, however typed. */
export function quickFilter(words: string): SQL {
  const typedNumber = /^[\d\s().+-]+$/.test(words) ? words.replace(/\D/g, '') : ''
  if (typedNumber.length >= 3) return sql`exists (select 1 from ${phone} x where x.record_id = r.id
    and x.e164 like ${`%${typedNumber.replace(/^0+/, '')}%`})`
  return everyWord(words.split(/\s+/).filter(Boolean), [sql`r.name`, sql`company.name`, sql`r.city`, nameOfStage(sql`r.stage_id`)])
}

/** Each of the words is somewhere in one of these; no words are everywhere. */
export function everyWord(words: string[], places: SQL[]): SQL {
  const conditions = words.map(word => sql`(${sql.join(places.map(place => sql`${place} ilike ${containing(word)}`), sql` or `)})`)
  return conditions.length > 0 ? sql.join(conditions, sql` and `) : sql`true`
}

/** As a pattern of LIKE, in which nothing typed has a meaning of its own. */
export const containing = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`
