import { eq, sql } from 'drizzle-orm'
import type { InboxView } from '~~/shared/inbox'
import { can } from '~~/shared/permissions'
import type { InboxViewForm } from '~~/shared/schemas/inbox'
import { read, tx } from '../db/door'
import { colleague, inboxView } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'

/** Views of the inbox: mine first, then my team's, each by name. */
export async function listInboxViews(asker: SignedIn): Promise<InboxView[]> {
  const rows = await read(database => database.select({ view: inboxView, owner: colleague.name })
    .from(inboxView)
    .innerJoin(colleague, eq(colleague.id, inboxView.ownerId))
    .where(visible(asker, 'view.see', { owner: inboxView.ownerId, team: inboxView.teamId }))
    .orderBy(sql`${inboxView.ownerId} <> ${asker.id}`, sql`${inboxView.name} collate "und-x-icu"`))
  return rows.map(({ view: { id, name, asked, ownerId, teamId }, owner }) =>
    ({ id, name, asked, shared: teamId !== null, owner, mayEdit: can(asker, 'view.edit', { ownerId, teamId }) }))
}

/**
 * Saves the inbox as it is narrowed; under the id of a view there is, it changes that view.
 *
 * @throws Problem 422 for whoever is in no team to share it with, 403 for somebody else's view
 */
export async function saveInboxView(asker: SignedIn, { id, name, asked, shared }: InboxViewForm, now: Date): Promise<InboxView[]> {
  const teamId = shared ? asker.teamIds[0] : null
  if (teamId === undefined) throw badInput({ shared: 'You are in no team to share it with.' })
  await tx(async (database) => {
    const [there] = await database.select().from(inboxView).where(eq(inboxView.id, id)).for('update')
    if (there) mayEdit(asker, there)
    const values = { name, teamId, asked }
    await database.insert(inboxView).values({ ...values, id, ownerId: asker.id, madeAt: now })
      .onConflictDoUpdate({ target: inboxView.id, set: values })
  })
  return listInboxViews(asker)
}

/** @throws Problem 404, 403 for somebody else's */
export async function removeInboxView(asker: SignedIn, id: string): Promise<InboxView[]> {
  await tx(async (database) => {
    const [there] = await database.select().from(inboxView).where(eq(inboxView.id, id)).for('update')
    if (!there) return
    mayEdit(asker, there)
    await database.delete(inboxView).where(eq(inboxView.id, id))
  })
  return listInboxViews(asker)
}

function mayEdit(asker: SignedIn, there: typeof inboxView.$inferSelect): void {
  if (can(asker, 'view.edit', there)) return
  throw can(asker, 'view.see', there) ? notAllowed('change this view; save it under a name of your own') : notFound('view')
}
