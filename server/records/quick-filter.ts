import { sql, type SQL } from 'drizzle-orm'
import { phone } from '../db/schema'
import { nameOfStage } from '../reading/stages'
import { containing, holdsWord, plain } from './found-by'

/**
 * Every word is in what a record is found by, its company, city or stage, accents or not; digits alone are part of a
 * number, however typed, or of a postcode.
 */
export function quickFilter(words: string): SQL {
  const typedNumber = /^[\d\s().+-]+$/.test(words) ? words.replace(/\D/g, '') : ''
  if (typedNumber.length >= 3) return sql`(r.postcode like ${containing(words.trim())} or exists (select 1 from ${phone} x
    where x.record_id = r.id and x.e164 like ${`%${typedNumber.replace(/^0+/, '')}%`}))`
  return everyWord(words.split(/\s+/).filter(Boolean), [
    sql`r.found_by`, sql`company.found_by`, plain(sql`r.city`), plain(nameOfStage(sql`r.stage_id`)),
  ])
}

/** Each of the words is somewhere in one of these, which are plain words; no words are everywhere. */
export function everyWord(words: string[], places: SQL[]): SQL {
  const conditions = words.map(word => sql`(${sql.join(places.map(place => holdsWord(place, word)), sql` or `)})`)
  return conditions.length > 0 ? sql.join(conditions, sql` and `) : sql`true`
}
