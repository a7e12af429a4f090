import { sql, type SQL } from 'drizzle-orm'
import { columnsOf, type Column } from '~~/shared/columns'
import type { Module } from '~~/shared/modules'
import { numberState, phone } from '../db/schema'
import { ownFields } from './fields'

/** A column as the database computes it, of a record `r` with its `company` and its owner `o`. */
export interface SqlColumn extends Column {
  value: SQL
  /** What it is sorted by. Names are sorted as people sort them, not by code points, where Zoe comes before ada. */
  order: SQL
  /** Whether it can be empty, which then comes last. */
  mayBeEmpty: boolean
}

const COLLATION = sql`collate "und-x-icu"`

const VALUES: Record<string, SQL> = {
  'name': sql`r.name`,
  'company': sql`company.name`,
  'stage': sql`r.stage`,
  'city': sql`r.city`,
  'phone': sql`(select coalesce(x.e164, x.typed) from ${phone} x where x.record_id = r.id order by x.position limit 1)`,
  'owner': sql`r.owner_id::text`,
  'last-contact': sql`r.last_contact_at`,
  'tags': sql`r.tags`,
  'title': sql`r.title`,
  'mail': sql`r.mail`,
  'street': sql`r.street`,
  'postcode': sql`r.postcode`,
  'region': sql`r.region`,
  'country': sql`r.country`,
  'opted-out': sql`exists (select 1 from ${phone} x join ${numberState} n on n.e164 = x.e164 where x.record_id = r.id and n.texts = 'refused')`,
  'made': sql`r.made_at`,
}

/** An owner is chosen by id and sorted by name. */
const ORDERS: Record<string, SQL> = {
  owner: sql`o.name ${COLLATION}`,
  tags: sql`array_to_string(r.tags, ' ') ${COLLATION}`,
}

/** The columns of a module's lists, its own fields included. */
export async function sqlColumnsOf(module: Module): Promise<Map<string, SqlColumn>> {
  return new Map(columnsOf(module, await ownFields()).map(column => [column.key, withSql(column)]))
}

function withSql(column: Column): SqlColumn {
  const value = VALUES[column.key] ?? ownField(column)
  const order = ORDERS[column.key] ?? (column.kind === 'words' || column.kind === 'one' ? sql`${value} ${COLLATION}` : value)
  return { ...column, value, order, mayBeEmpty: !['name', 'made', 'opted-out'].includes(column.key) }
}

/** A field that the firm has added; what is no number in a field of numbers counts as empty. */
function ownField({ key, kind }: Column): SQL {
  const text = sql`nullif(r.fields ->> ${key.slice('own.'.length)}::text, '')`
  if (kind === 'number') return sql`(case when ${text} ~ '^-?[0-9]{1,15}([.][0-9]{1,9})?$' then (${text})::numeric end)`
  if (kind === 'yes-no') return sql`coalesce(${text} = 'true', false)`
  return text
}
