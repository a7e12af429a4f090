import { eq } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { AssignForm } from '~~/shared/schemas/inbox'
import { read, tx } from '../db/door'
import { colleague, conversation } from '../db/schema'
import { badInput } from '../http/problem'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { announceConversation, mustAnswer, tellOf } from './conversations'
import { lineBelongs } from './lines'
import { owe } from './owed'
import { whoAnswers } from './who-answers'

/**
 * Hands a conversation to a colleague, who owes the answer from now on, or back to everybody who answers its line. Taking it
 * is handing it to oneself; refusing it is giving it back.
 *
 * @throws Problem 404 if its line is not mine to answer, 422 for a colleague who does not answer it
 */
export async function assign(asker: SignedIn, conversationId: string, { colleagueId, why }: AssignForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustAnswer(asker, conversationId)
    if (found.conversation.assigneeId === colleagueId) return
    const to = colleagueId ? await colleagueAtWork(colleagueId) : null
    if (colleagueId && !(to && can(to, 'line.answer', lineBelongs(found.line))))
      throw badInput({ colleagueId: `They do not answer ${found.line.name}. Choose a colleague who does.` })
    await database.update(conversation).set({ assigneeId: colleagueId }).where(eq(conversation.id, conversationId))
    if (to && to.id !== asker.id) await owe(found.conversation, { kind: 'handed', at: now.getTime() })
    // whoever has it from now on hears of it, as of anything that comes in
    if (to && to.id !== asker.id) announceConversation(conversationId, found.line, true)
    await tellOf(found, { kind: 'assigned', colleagueId: asker.id, data: { to: to?.firstName ?? null, toId: colleagueId }, ...(why && { words: why }) }, now)
  })
}

/** The colleagues to whom a conversation can be handed: all who answer its line. */
export async function whoMayHave(asker: SignedIn, conversationId: string): Promise<{ id: string, name: string, title: string }[]> {
  const { line } = await mustAnswer(asker, conversationId)
  const all = await read(database =>
    database.select({ id: colleague.id, name: colleague.name, title: colleague.title }).from(colleague).orderBy(colleague.name))
  const answer = new Set(await whoAnswers(all.map(({ id }) => id), line))
  return all.filter(({ id }) => answer.has(id))
}
