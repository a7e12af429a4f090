import { sql, type SQL } from 'drizzle-orm'
import { validate as isUuid } from 'uuid'
import { readConditions, type Condition } from '~~/core/conditions/conditions'
import type { Today } from '~~/core/conditions/resolve'
import type { Module } from '~~/shared/modules'
import { uuidArray } from '../../db/instants'
import { groupMember } from '../../db/schema'
import type { SqlColumn } from '../columns'
import { holds } from '../conditions'
import { allGroups, type StoredGroup } from './one'

/**
 * Whether a record `r` is in one of some groups: put into it by hand, or found by its rule.
 *
 * @param columns of the module, in which groups are still those by hand only: a rule may ask for these and for no rule
 */
export function inOneOf(groups: StoredGroup[], module: Module, columns: Map<string, SqlColumn>, today: Today): SQL {
  const byHand = groups.filter(({ conditions }) => !conditions).map(({ id }) => id)
  const ways = [
    ...byHand.length > 0 ? [sql`r.id in (select m.record_id from ${groupMember} m where m.group_id = any(${uuidArray(byHand)}))`] : [],
    ...groups.filter(one => one.module === module).map(({ conditions }) => {
      // a rule that asks for a field that is gone holds for nobody
      const rule = readConditions(conditions, field => columns.get(field)?.kind ?? null)
      return rule.ok ? holds(rule.conditions, columns, today) : sql`false`
    }),
  ]
  return ways.length > 0 ? sql`coalesce((${sql.join(ways, sql` or `)}), false)` : sql`false`
}

/** How the groups of a module's records are asked for in conditions. */
export async function askForGroups(module: Module, columns: Map<string, SqlColumn>): Promise<(condition: Condition, today: Today) => SQL> {
  const all = await allGroups()
  const plain = new Map(columns)
  return ({ test, value }, today) => {
    const wanted = new Set((value as string[] | undefined)?.filter(isUuid))
    const asked = test === 'empty' || test === 'filled' ? all : all.filter(({ id }) => wanted.has(id))
    const isIn = inOneOf(asked, module, plain, today)
    return test === 'one-of' || test === 'filled' ? isIn : sql`not ${isIn}`
  }
}
