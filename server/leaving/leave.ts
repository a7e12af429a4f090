import { eq } from 'drizzle-orm'
import type { Holdings, SetUpPeople } from '~~/shared/people'
import { can } from '~~/shared/permissions'
import { bulkTexts } from '../bulk/hand-on'
import { calling } from '../calling/hand-on'
import { tx } from '../db/door'
import { colleague } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { HandsOn } from '../identity/hands-on'
import { endWork, listPeople, lockAdmins, mustNotBeTheLast } from '../identity/people'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { records } from '../records/hand-on'
import { tasks } from '../tasks/hand-on'
import { templates } from '../templates/hand-on'
import { texting } from '../texting/hand-on'

/** Every room that has something of a colleague's; what is not in it stays with them. */
const ROOMS: HandsOn[] = [records, texting, tasks, templates, calling, bulkTexts]

const NOTHING: Holdings = { records: 0, lines: 0, conversations: 0, tasks: 0, templates: 0, bulkTexts: 0, rounds: 0, scheduled: 0 }

/** What somebody has, before they leave. */
export async function holdingsOf(asker: SignedIn, colleagueId: string): Promise<Holdings> {
  mustEdit(asker)
  const counts = await tx(async () => {
    const found: Partial<Holdings>[] = []
    for (const { count } of ROOMS) found.push(await count(colleagueId))
    return found
  })
  return Object.assign({}, NOTHING, ...counts) as Holdings
}

/**
 * Somebody works here no more: all that is theirs goes to a colleague, their browsers are signed out, and no link lets them
 * in. What they did stays theirs on every timeline.
 *
 * @throws Problem 409 for oneself or the last admin; 422 for nobody to give it to
 */
export async function letGo(asker: SignedIn, id: string, toId: string, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  if (id === asker.id) throw conflict('oneself', 'Somebody else does that', 'You cannot let yourself go. Another admin can.')
  return tx(async (database) => {
    await lockAdmins()
    const [leaver] = await database.select().from(colleague).where(eq(colleague.id, id)).for('update')
    if (!leaver || leaver.leftAt) throw notFound('colleague')
    if (leaver.role === 'admin') await mustNotBeTheLast(id)
    const to = await colleagueAtWork(toId)
    if (!to || toId === id || to.role === 'helper') throw badInput({ toId: 'Choose a colleague who works here.' })
    const held = await holdingsOf(asker, id)
    if (held.records > 0 && to.teamIds.length === 0)
      throw badInput({ toId: `${to.name} is in no team, so nobody else would see the records. Choose somebody else.` })
    for (const { handOn } of ROOMS) await handOn(asker, id, to, now)
    await endWork(id, now)
    await note('colleague-left', asker.id, now, { colleagueId: id, name: leaver.name, to: to.name, ...held })
    return listPeople(asker)
  })
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'people.edit', {})) throw notAllowed('let colleagues go; an admin does')
}
