import { sql, type SQL } from 'drizzle-orm'
import { isGroup, type Condition, type Conditions } from '~~/core/conditions/conditions'
import { daysOf, instantsOf, type Range, type Today } from '~~/core/conditions/resolve'
import { validate as isUuid } from 'uuid'
import { at, textArray, uuidArray } from '../db/instants'
import type { SqlColumn } from './columns'

/**
 * Conditions as SQL over a record `r`. `judge` in core says the same of one record, and a property test holds the two alike.
 *
 * They are only ever joined by `and` and `or`, where null counts as no: so columns stand bare where they can, and the
 * database knows from its statistics how many records a condition leaves.
 */
export function holds(conditions: Conditions, columns: Map<string, SqlColumn>, today: Today): SQL {
  if (conditions.of.length === 0) return sql`true`
  const parts = conditions.of.map(one => isGroup(one) ? holds(one, columns, today) : holdsOne(one, columns.get(one.field)!, today))
  return sql`(${sql.join(parts, conditions.match === 'all' ? sql` and ` : sql` or `)})`
}

function holdsOne(condition: Condition, { kind, value, isId, ask }: SqlColumn, today: Today): SQL {
  if (ask) return ask(condition, today)
  const { test, value: wanted } = condition
  const empty = kind === 'many' ? sql`${value} = '{}'` : kind === 'words' ? sql`(${value} is null or ${value} = '')` : sql`${value} is null`
  if (test === 'empty') return empty
  if (test === 'filled') return sql`not ${empty}`
  switch (kind) {
    case 'yes-no':
      return test === 'yes' ? value : sql`not ${value}`
    case 'number':
      return isOrNot(test, value, sql`${Number(wanted)}::numeric`, { 'at-least': sql`>=`, 'at-most': sql`<=` })
    case 'words':
      return words(test, value, String(wanted))
    case 'one':
      return oneOrNone(
        value,
        sql`${value} = any(${isId ? uuidArray((wanted as string[]).filter(isUuid)) : textArray(wanted as string[])})`,
        test,
      )
    case 'many':
      return oneOrNone(value, sql`${value} && ${textArray(wanted as string[])}`, test)
    case 'day':
      return within(daysOf(condition, today.day), value, day => sql`${day}::text`)
    case 'instant':
      return within(instantsOf(condition, today), value, at)
  }
}

function isOrNot(test: Condition['test'], value: SQL, wanted: SQL, others: Partial<Record<Condition['test'], SQL>>): SQL {
  if (test === 'is') return sql`${value} = ${wanted}`
  if (test === 'is-not') return sql`${value} is distinct from ${wanted}`
  return sql`${value} ${others[test]!} ${wanted}`
}

function words(test: Condition['test'], value: SQL, wanted: string): SQL {
  const pattern = wanted.replace(/[\\%_]/g, '\\$&')
  if (test === 'contains') return sql`${value} ilike ${`%${pattern}%`}`
  if (test === 'starts') return sql`${value} ilike ${`${pattern}%`}`
  return isOrNot(test, sql`lower(${value})`, sql`lower(${wanted})`, {})
}

/** None of these holds for what is empty too. */
const oneOrNone = (value: SQL, some: SQL, test: Condition['test']): SQL => test === 'one-of' ? some : sql`(${value} is null or not ${some})`

function within<T>({ from, to, orEmpty }: Range<T>, value: SQL, write: (bound: T) => SQL): SQL {
  const bounds = sql.join(
    [...(from === null ? [] : [sql`${value} >= ${write(from)}`]), ...(to === null ? [] : [sql`${value} < ${write(to)}`])],
    sql` and `,
  )
  return orEmpty ? sql`(${value} is null or (${bounds}))` : sql`(${bounds})`
}
