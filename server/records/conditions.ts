import { sql, type SQL } from 'drizzle-orm'
import { isGroup, type Condition, type Conditions } from '~~/core/conditions/conditions'
import { daysOf, instantsOf, type Range, type Today } from '~~/core/conditions/resolve'
import { at } from '../db/instants'
import type { SqlColumn } from './columns'

/** Conditions as SQL over a record `r`. `judge` in core says the same of one record, and a property test holds the two alike. */
export function holds(conditions: Conditions, columns: Map<string, SqlColumn>, today: Today): SQL {
  if (conditions.of.length === 0) return sql`true`
  const parts = conditions.of.map(one => isGroup(one) ? holds(one, columns, today) : holdsOne(one, columns.get(one.field)!, today))
  return sql`(${sql.join(parts, conditions.match === 'all' ? sql` and ` : sql` or `)})`
}

function holdsOne(condition: Condition, { kind, value }: SqlColumn, today: Today): SQL {
  const { test, value: wanted } = condition
  const empty = kind === 'many' ? sql`${value} = '{}'` : kind === 'words' ? sql`(${value} is null or ${value} = '')` : sql`${value} is null`
  if (test === 'empty') return empty
  if (test === 'filled') return sql`not ${empty}`
  switch (kind) {
    case 'yes-no': return test === 'yes' ? value : sql`not ${value}`
    case 'number': return isOrNot(test, value, sql`${Number(wanted)}::numeric`, { 'at-least': sql`>=`, 'at-most': sql`<=` })
    case 'words': return words(test, value, String(wanted))
    case 'one': return oneOrNone(sql`${value} = any(${sql.param(wanted)}::text[])`, test)
    case 'many': return oneOrNone(sql`${value} && ${sql.param(wanted)}::text[]`, test)
    case 'day': return within(daysOf(condition, today.day), value, day => sql`${day}::text`)
    case 'instant': return within(instantsOf(condition, today), value, at)
  }
}

function isOrNot(test: Condition['test'], value: SQL, wanted: SQL, others: Partial<Record<Condition['test'], SQL>>): SQL {
  if (test === 'is') return sql`coalesce(${value} = ${wanted}, false)`
  if (test === 'is-not') return sql`${value} is distinct from ${wanted}`
  return sql`coalesce(${value} ${others[test]!} ${wanted}, false)`
}

function words(test: Condition['test'], value: SQL, wanted: string): SQL {
  const pattern = wanted.replace(/[\\%_]/g, '\\$&')
  if (test === 'contains') return sql`coalesce(${value} ilike ${`%${pattern}%`}, false)`
  if (test === 'starts') return sql`coalesce(${value} ilike ${`${pattern}%`}, false)`
  return isOrNot(test, sql`lower(${value})`, sql`lower(${wanted})`, {})
}

/** None of these holds for what is empty too. */
function oneOrNone(some: SQL, test: Condition['test']): SQL {
  return test === 'one-of' ? sql`coalesce(${some}, false)` : sql`not coalesce(${some}, false)`
}

function within<T>({ from, to, orEmpty }: Range<T>, value: SQL, write: (bound: T) => SQL): SQL {
  const bounds = [...(from === null ? [] : [sql`${value} >= ${write(from)}`]), ...(to === null ? [] : [sql`${value} < ${write(to)}`])]
  return sql`coalesce(${sql.join(bounds, sql` and `)}, ${orEmpty})`
}
