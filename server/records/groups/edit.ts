import { eq, ne, and, sql } from 'drizzle-orm'
import { isGroup, type Conditions } from '~~/core/conditions/conditions'
import type { GroupHead } from '~~/shared/groups'
import { can } from '~~/shared/permissions'
import type { GroupForm } from '~~/shared/schemas/group'
import { read, tx } from '../../db/door'
import { colleague, peopleGroup } from '../../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../../http/problem'
import { note } from '../../identity/audit'
import type { SignedIn } from '../../identity/sign-in'
import { sqlColumnsOf } from '../columns'
import { conditionsOf } from '../list'
import { allGroups, announceGroup, wayOf, type StoredGroup } from './one'

/** As many as a picker still shows; each rule costs something wherever groups are asked for. */
const MOST_GROUPS = 200

const mayEdit = (asker: SignedIn, { madeBy }: StoredGroup): boolean => can(asker, 'group.edit', { ownerId: madeBy })

/** Every group, by name. */
export async function listGroups(asker: SignedIn): Promise<GroupHead[]> {
  const makers = new Map((await read(database => database.select({ id: colleague.id, firstName: colleague.firstName }).from(colleague)))
    .map(one => [one.id, one]))
  return (await allGroups()).map(group => ({
    id: group.id,
    name: group.name,
    way: wayOf(group),
    rule: group.conditions && { module: group.module!, conditions: group.conditions },
    madeBy: makers.get(group.madeBy)!,
    mayEdit: mayEdit(asker, group),
  }))
}

export async function readGroup(asker: SignedIn, id: string): Promise<GroupHead> {
  const found = (await listGroups(asker)).find(one => one.id === id)
  if (!found) throw notFound('group')
  return found
}

/**
 * Makes a group, or changes it under its id. One by hand stays so, and one by a rule too: what it means to be in it is what
 * colleagues have relied on.
 *
 * @throws Problem 422 for a name that there is already, or a rule that cannot be asked; 403 for somebody else's
 */
export async function saveGroup(asker: SignedIn, { id, name, module, where }: GroupForm, now: Date): Promise<GroupHead> {
  const conditions = module && await ruleOf(asker, module, where)
  await tx(async (database) => {
    const [there] = await database.select().from(peopleGroup).where(eq(peopleGroup.id, id)).for('update')
    if (there && !mayEdit(asker, there)) throw notAllowed('change this group; its maker or a lead does')
    if (there && (there.conditions === null) !== (conditions === null))
      throw conflict('other-way', 'Of another kind', 'A group by hand stays by hand, and one by a rule by its rule. Make another one.')
    const [same] = await database.select({ id: peopleGroup.id }).from(peopleGroup)
      .where(and(sql`lower(${peopleGroup.name}) = lower(${name})`, ne(peopleGroup.id, id)))
    if (same) throw badInput({ name: 'There is a group of this name. Give it another one, or use that.' })
    if (!there && (await allGroups()).length >= MOST_GROUPS)
      throw badInput({ name: `There are ${MOST_GROUPS} groups, which is the most. Remove one that nobody needs first.` })
    await database
      .insert(peopleGroup)
      .values({ id, name, module, conditions, madeBy: asker.id, madeAt: now })
      .onConflictDoUpdate({ target: peopleGroup.id, set: { name, module, conditions } })
    await note(there ? 'group-changed' : 'group-made', asker.id, now, { groupId: id, name, module, conditions })
    announceGroup(id)
  })
  return readGroup(asker, id)
}

async function ruleOf(asker: SignedIn, module: NonNullable<GroupForm['module']>, where: string): Promise<Conditions> {
  const conditions = conditionsOf(where, await sqlColumnsOf(asker, module))
  if (conditions.of.length === 0) throw badInput({ where: 'A rule asks for something. Add a condition.' })
  const byRule = new Set((await allGroups()).filter(group => group.conditions).map(({ id }) => id))
  if (asksForRules(conditions, byRule))
    throw badInput({ where: 'A rule can ask for groups by hand, and for no group that is found by a rule itself. Ask for what that one asks for.' })
  return conditions
}

const asksForRules = ({ of }: Conditions, byRule: Set<string>): boolean => of.some(one =>
  isGroup(one)
    ? asksForRules(one, byRule)
    : one.field === 'groups' && (!Array.isArray(one.value) || one.value.some(id => byRule.has(id))))

/** Nobody in it is changed by that: what was sent to it stays with each of them. */
export async function removeGroup(asker: SignedIn, id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [there] = await database.select().from(peopleGroup).where(eq(peopleGroup.id, id)).for('update')
    if (!there) return
    if (!mayEdit(asker, there)) throw notAllowed('remove this group; its maker or a lead does')
    await database.delete(peopleGroup).where(eq(peopleGroup.id, id))
    await note('group-removed', asker.id, now, { groupId: id, name: there.name })
    announceGroup(id, true)
  })
}
