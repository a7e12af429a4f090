import { eq } from 'drizzle-orm'
import { CHANGEABLE, NEEDS, PERMISSIONS, reachesAsFar, can, scopeOf, type Changeable, type Role, type Scope } from '~~/shared/permissions'
import type { RightForm } from '~~/shared/schemas/rights'
import type { RightsTable } from '~~/shared/people'
import { read, tx } from '../db/door'
import { colleague, firm, rightChange } from '../db/schema'
import { badInput, notAllowed } from '../http/problem'
import { note } from './audit'
import { tellOfChange, type SignedIn } from './sign-in'

const ALL = Object.keys(CHANGEABLE) as Changeable[]

/** How far each right that can be changed reaches, by role, and how far it does unless an admin says otherwise. */
export async function readRights(asker: SignedIn): Promise<RightsTable> {
  mustEdit(asker)
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

/** It holds from the next click of everybody with this role. */
export async function changeRight(asker: SignedIn, { role, permission, scope }: RightForm, now: Date): Promise<RightsTable> {
  mustEdit(asker)
  if (!(CHANGEABLE[permission] as readonly Scope[]).includes(scope))
    throw badInput({ scope: 'This right does not reach so far, or not so little. Choose from the list.' })
  return tx(async (database) => {
    // two admins who change one right after the other must not leave one that needs another without it
    await database.select({ id: firm.id }).from(firm).for('update')
    const table = await readRights(asker)
    const from = table.find(one => one.permission === permission)![role]
    if (from === scope) return table
    mustHold(table.map(one => one.permission === permission ? { ...one, [role]: scope } : one), role, permission)
    const values = { role, permission, scope, changedBy: asker.id, changedAt: now }
    await database.insert(rightChange).values(values)
      .onConflictDoUpdate({ target: [rightChange.role, rightChange.permission], set: values })
    await note('right-changed', asker.id, now, { role, permission, from, to: scope })
    const theirs = await database.select({ id: colleague.id }).from(colleague).where(eq(colleague.role, role))
    for (const { id } of theirs) await tellOfChange(id)
    return readRights(asker)
  })
}

/** What one may do, one must be able to see. */
function mustHold(table: RightsTable, role: 'rep' | 'lead', changed: Changeable): void {
  const scope = (permission: Changeable) => table.find(one => one.permission === permission)![role]
  for (const [permission, needs] of Object.entries(NEEDS) as [Changeable, Changeable][]) {
    if (reachesAsFar(scope(needs), scope(permission))) continue
    throw badInput({
      scope: changed === needs
        ? 'They could change or take out what they do not see. Narrow that first.'
        : 'They do not see as far. Widen what they see first.',
    })
  }
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'people.edit', {})) throw notAllowed('see what others may do; an admin does')
}
