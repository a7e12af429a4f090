import { sql, type SQL } from 'drizzle-orm'
import { plainWords } from '~~/core/text/plain'
import { readPhone } from '~~/core/phone/read'
import type { Asker } from '~~/shared/permissions'
import type { RecordRow } from '~~/shared/record'
import { ask, read } from '../db/door'
import { planned } from '../db/prepared'
import { firm, phone, record } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { joinCompany } from '../reading/company'
import { joinContact } from '../reading/contact'
import { containing, holdsWord, plain } from './found-by'
import { everyWord } from './quick-filter'
import { rowOf, rowsFor, type Row } from './rows'

const FOUND = 8
const FEWEST_DIGITS = 3

/**
 * Records of any module by the words of their name, company, mail address, postcode, tags or own fields, with accents or
 * without, or by digits of a number, the last four too, however typed. A name that begins so comes first, then mine, then
 * the latest contact.
 */
export async function findRecords(asker: Asker, words: string): Promise<RecordRow[]> {
  const [{ country } = { country: 'US' }] = digitsIn(words)
    ? await read(database => database.select({ country: firm.country }).from(firm))
    : []
  const query = findQuery(asker, words, country)
  return query ? (await ask<Row>(planned(query))).rows.map(rowOf) : []
}

/**
 * Null where there is nothing to find by. Exported for the bench, which runs the same statement bare.
 *
 * @param country of a number that names none
 */
export function findQuery(asker: Asker, words: string, country: string): SQL | null {
  const digits = digitsIn(words)
  const search = digits ? byNumber(words, digits, country) : byWords(words)
  const mine = seesRecord(asker, 'r')
  const order = sql`${search?.rank} + (r.owner_id = ${asker.id}::uuid)::int desc, contact.at desc nulls last, r.id`
  // first which ones, then what of them is shown
  return search && sql`
    with candidate as (select id, max(fits) as fits from (${search.candidates}) found(id, fits) group by id),
    best as (
      select r.id, row_number() over (order by ${order}) as place
      from candidate join ${record} r on r.id = candidate.id ${joinCompany(asker)} ${joinContact}
      where ${search.where} and ${mine}
      order by ${order} limit ${sql.raw(String(FOUND))}
    )
    ${rowsFor(asker, sql`best chosen`)}`
}

interface Search {
  /** Ids that an index finds quickly, more than are meant, each with how well it `fits`. */
  candidates: SQL
  where: SQL
  rank: SQL
}

function digitsIn(words: string): string | null {
  if (!/^[\d\s().+/-]+$/.test(words)) return null
  const digits = words.replace('(0)', '').replace(/\D/g, '')
  return digits.length >= FEWEST_DIGITS ? digits : null
}

/** A whole number is that number; digits that are none are part of one, best its end. */
function byNumber(words: string, digits: string, country: string): Search {
  const reading = readPhone(words, country)
  const part = digits.replace(/^0+/, '') || digits
  const like = (pattern: string, fits: number) => sql`(select x.record_id, ${sql.raw(String(fits))} from ${phone} x
    where x.e164 like ${pattern} limit ${MOST_OF_A_WORD})`
  const parts = reading.ok ? [like(reading.e164, 2)] : [like(`%${part}`, 2), like(`%${part}%`, 0)]
  return {
    candidates: sql`${sql.join(parts, sql` union all `)}
      union all (select n.id, 1 from ${record} n where ${holdsWord(sql`n.found_by`, words.trim())} limit ${MOST_OF_A_WORD})
      union all (select x.record_id, 0 from ${phone} x where x.e164 is null
      and x.typed like ${`%${words.trim()}%`} limit ${MOST_OF_A_WORD})`,
    where: sql`true`,
    rank: sql`candidate.fits`,
  }
}

function byWords(words: string): Search | null {
  const all = words.split(/\s+/).filter(Boolean)
  if (all.length === 0) return null
  const starts = plainWords(words).replace(/[\\%_]/g, '\\$&')
  return {
    candidates: sql.join([...all.length > 1 ? [withAll(all)] : [], ...all.map(candidatesOf)], sql` union all `),
    where: everyWord(all, [sql`r.found_by`, sql`company.found_by`, plain(sql`r.city`)]),
    rank: sql`case when plain_words(r.name) like ${`${starts}%`} then 4 when plain_words(r.name) like ${`% ${starts}%`} then 3 else 0 end`,
  }
}

/** A word that hundreds have tells little: the other words bring those that are meant. */
const MOST_OF_A_WORD = sql.raw('800')
/** Somebody’s mail address or company says less than their name. */
const MOST_BESIDE = sql.raw('200')

function candidatesOf(word: string): SQL {
  const like = containing(word)
  return sql`
    (select n.id, 0 from ${record} n where n.name ilike ${like} limit ${MOST_OF_A_WORD})
    union all (select n.id, 0 from ${record} n where ${holdsWord(sql`n.found_by`, word)} limit ${MOST_OF_A_WORD})
    union all (select n.id, 0 from ${record} n
      where n.company_id = any(array(select c.id from ${record} c where c.module = 'company' and ${holdsWord(sql`c.found_by`, word)}))
        limit ${MOST_BESIDE})`
}

/** Who has all of the words themselves is found, however many have each of them. */
const withAll = (words: string[]): SQL => sql`(select n.id, 0 from ${record} n
  where ${sql.join(words.map(word => holdsWord(sql`n.found_by`, word)), sql` and `)} limit ${MOST_OF_A_WORD})`
