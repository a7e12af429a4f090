import { sql } from 'drizzle-orm'
import { dayAt } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { hasNumbers, type Module } from '~~/shared/modules'
import type { GroupOn } from '~~/shared/groups'
import type { RecordRow } from '~~/shared/record'
import { ask } from '../../db/door'
import { uuidArray } from '../../db/instants'
import { planned } from '../../db/prepared'
import { record } from '../../db/schema'
import type { SignedIn } from '../../identity/sign-in'
import { joinCompany } from '../../reading/company'
import { joinContact } from '../../reading/contact'
import { sqlColumnsOf } from '../columns'
import { inOneOf } from './asked'
import { allGroups, wayOf } from './one'

/** The groups that each of some records of a module is in, by name. Whoever is in none is left out. */
export async function groupsOfRecords(asker: SignedIn, module: Module, ids: string[], now: Date): Promise<Map<string, GroupOn[]>> {
  const found = new Map<string, GroupOn[]>()
  if (ids.length === 0 || !hasNumbers(module)) return found
  const groups = (await allGroups()).filter(one => one.module === null || one.module === module)
  if (groups.length === 0) return found
  const columns = await sqlColumnsOf(asker, module)
  const zone = zoneRules(asker.zone) ?? zoneRules('Etc/UTC')!
  const today = { day: dayAt(zone, now.getTime()), zone }
  const which = groups.map(group => sql`case when ${inOneOf([group], module, columns, today)} then ${group.id}::text end`)
  const { rows } = await ask<{ id: string, groups: string[] }>(planned(sql`
    select r.id, array_remove(array[${sql.join(which, sql`, `)}], null) as groups
    from ${record} r ${joinCompany(asker)} ${joinContact} where r.id = any(${uuidArray(ids)}) and r.module = ${module}`))
  for (const row of rows) {
    const isIn = new Set(row.groups)
    found.set(row.id, groups.filter(({ id }) => isIn.has(id)).map(group => ({ id: group.id, name: group.name, way: wayOf(group) })))
  }
  return found
}

/** Rows of a module with the names of the groups that each is in. */
export async function withGroups(asker: SignedIn, module: Module, rows: RecordRow[], now: Date): Promise<RecordRow[]> {
  const groups = await groupsOfRecords(asker, module, rows.map(({ id }) => id), now)
  return rows.map(row => ({ ...row, groups: groups.get(row.id)?.map(({ name }) => name) ?? [] }))
}
