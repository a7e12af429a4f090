import { sql, type SQL } from 'drizzle-orm'
import type { GroupPeople, GroupPerson } from '~~/shared/groups'
import type { GroupPeopleQuery } from '~~/shared/schemas/group'
import { ask } from '../../db/door'
import { planned } from '../../db/prepared'
import { groupMember, record } from '../../db/schema'
import { conflict, Problem } from '../../http/problem'
import type { SignedIn } from '../../identity/sign-in'
import { joinCompany } from '../../reading/company'
import { joinContact } from '../../reading/contact'
import { seesRecord } from '../../reading/visible'
import { chosenBy } from '../list'
import { quickFilter } from '../quick-filter'
import { rowsWith } from '../rows'
import { allGroups, mustFindGroup, type StoredGroup } from './one'

const SIZE = 50

/** Records `r` with their `company`, and which of them are in a group, of those that the asker may see. */
async function peopleIn(asker: SignedIn, group: StoredGroup, now: Date): Promise<{ from: SQL, where: SQL }> {
  if (!group.conditions)
    return {
      from: sql`${groupMember} m join ${record} r on r.id = m.record_id ${joinCompany(asker)} ${joinContact}`,
      where: sql`m.group_id = ${group.id}::uuid and ${seesRecord(asker, 'r')}`,
    }
  const query = { module: group.module!, words: '', where: JSON.stringify(group.conditions), sort: 'name', direction: 'up' } as const
  try {
    return await chosenBy(asker, query, now)
  }
  catch (error) {
    if (!(error instanceof Problem)) throw error
    throw conflict('rule-broken', 'The rule asks for what is gone', `The rule of ${group.name} asks for a field that is there no more. Change its rule.`)
  }
}

/** The same, as a query of `id` and `place`, their place by name. */
export async function inGroup(asker: SignedIn, groupId: string, now: Date): Promise<SQL> {
  const { from, where } = await peopleIn(asker, await mustFindGroup(groupId), now)
  return sql`select r.id, row_number() over (order by r.name collate "und-x-icu", r.id) as place from ${from} where ${where}`
}

/** A page of the people in a group, by name. */
export async function listGroupPeople(
  asker: SignedIn,
  groupId: string,
  { words, page }: GroupPeopleQuery,
  now: Date,
): Promise<GroupPeople> {
  const group = await mustFindGroup(groupId)
  const { from, where } = await peopleIn(asker, group, now)
  const which = sql`${from} where ${where} and ${quickFilter(words)}`
  const { rows } = await ask<{ id: string }>(planned(sql`
    select r.id from ${which} order by r.name collate "und-x-icu", r.id limit ${sql.raw(`${SIZE} offset ${(page - 1) * SIZE}`)}`))
  const { rows: [counted] } = await ask<{ total: number }>(planned(sql`select count(*)::int as total from ${which}`))
  return {
    rows: (await rowsWith(asker, rows.map(({ id }) => id))).map((row): GroupPerson => ({
      id: row.id,
      module: row.module,
      name: row.name,
      title: row.title,
      company: row.company?.name ?? null,
      city: row.city,
      owner: row.owner.name,
      lastContactAt: row.lastContactAt,
    })),
    total: counted!.total,
    page,
    size: SIZE,
  }
}

/** How many I may see of each group; null where its rule cannot be asked any more. */
export async function countGroups(asker: SignedIn, now: Date): Promise<Record<string, number | null>> {
  const counts: Record<string, number | null> = {}
  for (const group of await allGroups()) counts[group.id] = await countOf(asker, group, now)
  return counts
}

async function countOf(asker: SignedIn, group: StoredGroup, now: Date): Promise<number | null> {
  try {
    const { from, where } = await peopleIn(asker, group, now)
    const { rows: [counted] } = await ask<{ total: number }>(planned(sql`select count(*)::int as total from ${from} where ${where}`))
    return counted!.total
  }
  catch (error) {
    if (error instanceof Problem) return null
    throw error
  }
}
