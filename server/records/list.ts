import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { RecordPage, RecordRow } from '~~/shared/record'
import type { RecordQuery, RecordSort } from '~~/shared/schemas/record'
import { tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, numberState, phone, record } from '../db/schema'
import { visible } from '../identity/visible'

const SIZE = 50
const FOUND = 10

/** Names are sorted as people sort them, not by code points, where Zoe comes before ada. */
const SORTS: Record<RecordSort, SQL> = {
  'name': sql`r.name collate "und-x-icu"`,
  'stage': sql`r.stage collate "und-x-icu"`,
  'company': sql`company.name collate "und-x-icu"`,
  'city': sql`r.city collate "und-x-icu"`,
  'owner': sql`o.name collate "und-x-icu"`,
  'last-contact': sql`r.last_contact_at`,
}

const mine = (asker: Asker) => visible(asker, 'record.see', { owner: sql`r.owner_id`, team: sql`r.team_id` })

/** What a row of a list shows, of a record `r`. */
const ROWS = sql`
  select r.id, r.module, r.name, r.title, r.stage, r.city, ${milliseconds(sql`r.last_contact_at`)} as last_contact_at,
    o.id as owner_id, o.name as owner_name, company.id as company_id, company.name as company_name,
    p.shown as phone, coalesce(p.opted_out, false) as opted_out
  from ${record} r
  join ${colleague} o on o.id = r.owner_id
  left join ${record} company on company.id = r.company_id
  left join lateral (
    select coalesce(x.e164, x.typed) as shown, n.texts = 'refused' as opted_out
    from ${phone} x left join ${numberState} n on n.e164 = x.e164
    where x.record_id = r.id order by x.position limit 1
  ) p on true`

/** One page of a module's records that somebody may see. */
export async function listRecords(asker: Asker, { module, sort, direction, words, page }: RecordQuery): Promise<RecordPage> {
  const where = sql`r.module = ${module} and ${mine(asker)} and ${holds(words)}`
  const order = direction === 'up' ? sql`asc nulls last` : sql`desc nulls last`
  return tx(async (database) => {
    const { rows: [counted] } = await database.execute<{ total: number }>(sql`
      select count(*)::int as total from ${record} r left join ${record} company on company.id = r.company_id where ${where}`)
    const { rows } = await database.execute<Row>(sql`${ROWS} where ${where} order by ${SORTS[sort]} ${order}, r.id limit ${SIZE} offset ${(page - 1) * SIZE}`)
    return { rows: rows.map(rowOf), total: counted!.total, page, size: SIZE }
  })
}

/** Records of any module by the words of their name, company or city, or by digits of a number; the ones contacted last first. */
export async function findRecords(asker: Asker, words: string): Promise<RecordRow[]> {
  if (words === '') return []
  const { rows } = await tx(database => database.execute<Row>(sql`${ROWS} where ${mine(asker)} and ${holds(words)} order by r.last_contact_at desc nulls last, r.id limit ${FOUND}`))
  return rows.map(rowOf)
}

/** The quick filter: every word is in the name, the company, the city or the stage; digits alone are part of a number, however typed. */
function holds(words: string): SQL {
  const typedNumber = /^[\d\s().+-]+$/.test(words) ? words.replace(/\D/g, '') : ''
  if (typedNumber.length >= 3) return sql`exists (select 1 from ${phone} x where x.record_id = r.id and x.e164 like ${`%${typedNumber.replace(/^0+/, '')}%`})`
  const conditions = words.split(/\s+/).filter(Boolean).map((word) => {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
    return sql`(r.name ilike ${like} or company.name ilike ${like} or r.city ilike ${like} or r.stage ilike ${like})`
  })
  return conditions.length > 0 ? sql.join(conditions, sql` and `) : sql`true`
}

type Row = Record<string, unknown> & {
  id: string
  module: RecordRow['module']
  name: string
  title: string | null
  stage: string | null
  city: string | null
  last_contact_at: number | null
  owner_id: string
  owner_name: string
  company_id: string | null
  company_name: string
  phone: string | null
  opted_out: boolean
}

const rowOf = (row: Row): RecordRow => ({
  id: row.id,
  module: row.module,
  name: row.name,
  title: row.title,
  stage: row.stage,
  city: row.city,
  owner: { id: row.owner_id, name: row.owner_name },
  company: row.company_id ? { id: row.company_id, name: row.company_name } : null,
  phone: row.phone,
  optedOut: row.opted_out,
  lastContactAt: row.last_contact_at,
})
