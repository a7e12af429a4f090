import { sql, type SQL } from 'drizzle-orm'
import type { Condition } from '~~/core/conditions/conditions'
import type { Today } from '~~/core/conditions/resolve'
import { columnsOf, type Column } from '~~/shared/columns'
import type { Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import { groupMember, numberState, phone, record } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { ownFields } from './fields'
import { askForGroups } from './groups/asked'
import { peopleNamed } from './rows'
import { isOver } from '../reading/stages'
import { walkOf, type Walk } from './walk'

/** A column as the database computes it, of a record `r` with its `company` and its owner `o`. */
export interface SqlColumn extends Column {
  value: SQL
  /** How it is asked, where that is not by its value. */
  ask?: (condition: Condition, today: Today) => SQL
  /** It holds the id of something, and what it is asked for are ids. */
  isId: boolean
  walk: Walk
}

const VALUES: Record<string, SQL> = {
  'name': sql`r.name`,
  'company': sql`company.name`,
  'sector': sql`nullif(company.fields ->> 'sector', '')`,
  'stage': sql`r.stage_id`,
  'city': sql`r.city`,
  'phone': sql`(select coalesce(x.e164, x.typed) from ${phone} x where x.record_id = r.id order by x.position limit 1)`,
  'owner': sql`r.owner_id`,
  'last-contact': sql`contact.at`,
  'tags': sql`r.tags`,
  'groups': sql`array(select m.group_id::text from ${groupMember} m where m.record_id = r.id)`,
  'title': sql`r.title`,
  'mail': sql`r.mail`,
  'street': sql`r.street`,
  'postcode': sql`r.postcode`,
  'region': sql`r.region`,
  'country': sql`r.country`,
  'opted-out': sql`exists (select 1 from ${phone} x join ${numberState} n on n.e164 = x.e164 where x.record_id = r.id
    and n.texts = 'refused')`,
  'pipeline': sql`r.pipeline_id`,
  'over': isOver(sql`r.stage_id`),
  'made': sql`r.made_at`,
}

/** How the key of a column begins that shows a field of the module's own. */
export const OWN = 'own.'

/** What speaks of other records tells only of those that the asker may see. */
const seenBy = (asker: Asker): Record<string, SQL> => ({
  people: peopleNamed(asker),
  about: sql`(select x.name from ${record} x where x.id = r.about_id
    and ${seesRecord(asker, 'x')})`,
})

const IDS = new Set(['stage', 'owner', 'pipeline'])

/** The columns of a module's lists, its own fields included. */
export async function sqlColumnsOf(asker: Asker, module: Module): Promise<Map<string, SqlColumn>> {
  const values = { ...VALUES, ...seenBy(asker) }
  const columns = new Map<string, SqlColumn>(columnsOf(module, await ownFields()).map((column) => {
    const value = values[column.key] ?? ownField(column)
    return [column.key, { ...column, value, isId: IDS.has(column.key), walk: walkOf(asker, column.key, column.kind, value) }]
  }))
  const groups = columns.get('groups')
  if (groups) columns.set('groups', { ...groups, ask: await askForGroups(module, columns) })
  return columns
}

/**
 * A field that the firm has added; what is no number in a field of numbers counts as empty. Its key stands in the words, so
 * that an index of the very same words is found.
 *
 * @param fields the column in which a record holds these
 */
export function ownField({ key, kind }: Pick<Column, 'key' | 'kind'>, fields = sql`r.fields`): SQL {
  const text = sql`nullif(${fields} ->> ${sql.raw(`'${key.slice(OWN.length).replaceAll('\'', '\'\'')}'`)}, '')`
  if (kind === 'number') return sql`(case when ${text} ~ '^-?[0-9]{1,15}([.][0-9]{1,9})?$' then (${text})::numeric end)`
  if (kind === 'yes-no') return sql`coalesce(${text} = 'true', false)`
  return text
}
