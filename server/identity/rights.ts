import { and, eq, isNull, sql } from 'drizzle-orm'
import { CHANGEABLE, NEEDS, PERMISSIONS, reachesAsFar, can, scopeOf, type Changeable, type Role, type Scope } from '~~/shared/permissions'
import type { PersonRightForm, RightForm } from '~~/shared/schemas/rights'
import type { RightsOfAll, RightsTable } from '~~/shared/people'
import { read, tx } from '../db/door'
import { colleague, firm, personRight, rightChange } from '../db/schema'
import { badInput, notAllowed } from '../http/problem'
import { note } from './audit'
import { tellOfChange, type SignedIn } from './sign-in'

const ALL = Object.keys(CHANGEABLE) as Changeable[]
type Reach = Record<Changeable, Scope>

/** How far each right that can be changed reaches, by role and for single colleagues, and how far unless an admin says otherwise. */
export async function readRights(asker: SignedIn): Promise<RightsOfAll> {
  mustEdit(asker)
  const [table, people, colleagues] = [await readTable(), await readPeople(), await repsAndLeads()]
  const usual = ({ role, permission }: typeof people[number]) => table.find(one => one.permission === permission)![role]
  return {
    table,
    people: people.map(one => ({ ...one, usual: usual(one) })),
    colleagues,
  }
}

/** It holds from the next click of everybody with this role, but for those of whom something of their own was said. */
export async function changeRight(asker: SignedIn, { role, permission, scope }: RightForm, now: Date): Promise<RightsOfAll> {
  mustEdit(asker)
  mustReach(permission, scope)
  return oneAfterTheOther(async (database) => {
    const table = await readTable()
    const from = table.find(one => one.permission === permission)![role]
    if (from === scope) return readRights(asker)
    const reach = { ...reachOf(table, role), [permission]: scope }
    mustHold(reach, permission)
    for (const { name, own } of (await ownOf(role)).values()) mustHold({ ...reach, ...own }, permission, name)
    const values = { role, permission, scope, changedBy: asker.id, changedAt: now }
    await database.insert(rightChange).values(values)
      .onConflictDoUpdate({ target: [rightChange.role, rightChange.permission], set: values })
    await note('right-changed', asker.id, now, { role, permission, from, to: scope })
    const theirs = await database.select({ id: colleague.id }).from(colleague).where(eq(colleague.role, role))
    for (const { id } of theirs) await tellOfChange(id)
    return readRights(asker)
  })
}

/**
 * What one colleague may do more, or less, than others in their role; from their next click.
 *
 * @throws Problem 422 for somebody who may do everything anyway, or nothing but help
 */
export async function changeRightOf(asker: SignedIn, { colleagueId, permission, scope }: PersonRightForm, now: Date): Promise<RightsOfAll> {
  mustEdit(asker)
  if (scope !== null) mustReach(permission, scope)
  return oneAfterTheOther(async (database) => {
    const who = (await repsAndLeads()).find(({ id }) => id === colleagueId)
    if (!who) throw badInput({ colleagueId: 'Only reps and leads have rights of their own: admins may do everything, and helpers see nobody.' })
    const usual = reachOf(await readTable(), who.role)
    const own = (await ownOf(who.role)).get(colleagueId)?.own ?? {}
    const from = own[permission] ?? null
    if (from === scope) return readRights(asker)
    mustHold({ ...usual, ...own, [permission]: scope ?? usual[permission] }, permission)
    await database.delete(personRight).where(and(eq(personRight.colleagueId, colleagueId), eq(personRight.permission, permission)))
    if (scope) await database.insert(personRight).values({ colleagueId, permission, scope, changedBy: asker.id, changedAt: now })
    const said = { from: from ?? usual[permission], to: scope ?? usual[permission] }
    await note('right-changed', asker.id, now, { colleagueId, permission, ...said })
    await tellOfChange(colleagueId)
    return readRights(asker)
  })
}

/** Two admins who change one right after the other must not leave one that needs another without it. */
const oneAfterTheOther: typeof tx = work => tx(async (database) => {
  await database.select({ id: firm.id }).from(firm).for('update')
  return work(database)
})

async function readTable(): Promise<RightsTable> {
  const changed = await read(database => database.select().from(rightChange))
  const rightsOf = (role: Role) =>
    Object.fromEntries(changed.filter(one => one.role === role).map(({ permission, scope }) => [permission, scope]))
  return ALL.map(permission => ({
    permission,
    rep: scopeOf({ role: 'rep', rights: rightsOf('rep') }, permission),
    lead: scopeOf({ role: 'lead', rights: rightsOf('lead') }, permission),
    usual: { rep: PERMISSIONS[permission].rep, lead: PERMISSIONS[permission].lead },
  }))
}

const readPeople = () => read(database => database
  .select({
    colleagueId: personRight.colleagueId, name: colleague.name, role: sql<'rep' | 'lead'>`${colleague.role}`,
    permission: personRight.permission, scope: personRight.scope,
  })
  .from(personRight)
  .innerJoin(colleague, eq(colleague.id, personRight.colleagueId))
  .orderBy(sql`${colleague.name} collate "und-x-icu"`, personRight.permission))

const repsAndLeads = () => read(database => database
  .select({ id: colleague.id, name: colleague.name, role: sql<'rep' | 'lead'>`${colleague.role}` })
  .from(colleague)
  .where(and(sql`${colleague.role} in ('rep', 'lead')`, isNull(colleague.leftAt)))
  .orderBy(sql`${colleague.name} collate "und-x-icu"`))

const reachOf = (table: RightsTable, role: 'rep' | 'lead') =>
  Object.fromEntries(table.map(one => [one.permission, one[role]])) as Reach

/** What was said of single colleagues with this role, by their ids. */
async function ownOf(role: 'rep' | 'lead'): Promise<Map<string, { name: string, own: Partial<Reach> }>> {
  const all = new Map<string, { name: string, own: Partial<Reach> }>()
  for (const { colleagueId, name, permission, scope } of (await readPeople()).filter(one => one.role === role))
    all.set(colleagueId, { name, own: { ...all.get(colleagueId)?.own, [permission]: scope } })
  return all
}

function mustReach(permission: Changeable, scope: Scope): void {
  if (!(CHANGEABLE[permission] as readonly Scope[]).includes(scope))
    throw badInput({ scope: 'This right does not reach so far, or not so little. Choose from the list.' })
}

/** What one may do, one must be able to see. */
function mustHold(reach: Reach, changed: Changeable, who = 'They'): void {
  for (const [permission, needs] of Object.entries(NEEDS) as [Changeable, Changeable][]) {
    if (reachesAsFar(reach[needs], reach[permission])) continue
    throw badInput({
      scope: changed === needs
        ? `${who} could change or take out what they do not see. Narrow that first.`
        : `${who} would not see as far. Widen what they see first.`,
    })
  }
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'people.edit', {})) throw notAllowed('see what others may do; an admin does')
}
