import { sql, type SQL } from 'drizzle-orm'
import { columnsOf, type Column } from '~~/shared/columns'
import type { Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import { numberState, phone, pipeline, record } from '../db/schema'
import { visible } from '../identity/visible'
import { ownFields } from './fields'
import { peopleNamed } from './rows'
import { isOver, placeOfStage } from './stages'

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
  'stage': sql`r.stage_id::text`,
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
  'pipeline': sql`r.pipeline_id::text`,
  'over': isOver(sql`r.stage_id`),
  'made': sql`r.made_at`,
}

/** What speaks of other records tells only of those that the asker may see. */
const seenBy = (asker: Asker): Record<string, SQL> => ({
  people: peopleNamed(asker),
  about: sql`(select x.name from ${record} x where x.id = r.about_id and ${visible(asker, 'record.see', { owner: sql`x.owner_id`, team: sql`x.team_id` })})`,
})

/** An owner and a pipeline are chosen by id and sorted by name, a stage by where it stands. */
const ORDERS: Record<string, SQL> = {
  stage: placeOfStage(sql`r.stage_id`),
  pipeline: sql`(select pl.name from ${pipeline} pl where pl.id = r.pipeline_id) ${COLLATION}`,
  owner: sql`o.name ${COLLATION}`,
  tags: sql`array_to_string(r.tags, ' ') ${COLLATION}`,
}

/** The columns of a module's lists, its own fields included. */
export async function sqlColumnsOf(asker: Asker, module: Module): Promise<Map<string, SqlColumn>> {
  const values = { ...VALUES, ...seenBy(asker) }
  return new Map(columnsOf(module, await ownFields()).map(column => [column.key, withSql(column, values[column.key] ?? ownField(column))]))
}

function withSql(column: Column, value: SQL): SqlColumn {
  const order = ORDERS[column.key] ?? (column.kind === 'words' || column.kind === 'one' ? sql`${value} ${COLLATION}` : value)
  return { ...column, value, order, mayBeEmpty: !['name', 'made', 'opted-out', 'over'].includes(column.key) }
}

/** A field that the firm has added; what is no number in a field of numbers counts as empty. */
function ownField({ key, kind }: Column): SQL {
  const text = sql`nullif(r.fields ->> ${key.slice('own.'.length)}::text, '')`
  if (kind === 'number') return sql`(case when ${text} ~ '^-?[0-9]{1,15}([.][0-9]{1,9})?$' then (${text})::numeric end)`
  if (kind === 'yes-no') return sql`coalesce(${text} = 'true', false)`
  return text
}
