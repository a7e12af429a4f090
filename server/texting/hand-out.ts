import { and, eq, gt, inArray } from 'drizzle-orm'
import { nextInTurn } from '~~/core/owed/turn'
import { withWhom } from '../activity/with-whom'
import { read, tx } from '../db/door'
import { conversation, line, record, signIn } from '../db/schema'
import { firstNames } from '../identity/colleagues'
import { announceConversation, tellOf, type OpenConversation } from './conversations'
import { whoAnswers } from './who-answers'

/**
 * Gives a conversation that owes an answer and that nobody has to whoever is next in its line's order, of those who are signed
 * in. Whose record it is with has it already; where nobody is there it stays with all.
 *
 * @returns the conversation as it is then
 */
export async function handOut({ conversation: { id }, line: { id: lineId } }: OpenConversation, now: Date): Promise<OpenConversation> {
  return tx(async (database) => {
    // of two that come in at once each goes to another
    const [on] = await database.select().from(line).where(eq(line.id, lineId)).for('update')
    const [found] = await database.select().from(conversation).where(eq(conversation.id, id)).for('update')
    const open = { conversation: found!, line: on! }
    if (on!.takeOrder.length === 0 || found!.assigneeId || !found!.waitsSince || await isSomebodys(open)) return open
    const next = nextInTurn(on!.takeOrder, on!.tookLast, await whoAnswers(await signedIn(on!.takeOrder, now), on!))
    if (!next) return open
    await database.update(line).set({ tookLast: next }).where(eq(line.id, lineId))
    const [given] = await database.update(conversation).set({ assigneeId: next }).where(eq(conversation.id, id)).returning()
    await tellOf(open, { kind: 'assigned', colleagueId: null, data: { to: (await firstNames([next])).get(next), toId: next } }, now)
    announceConversation(id, on!, true)
    return { conversation: given!, line: on! }
  })
}

/** Whether it is with somebody's record who answers its line. */
async function isSomebodys({ conversation: { remote }, line: on }: OpenConversation): Promise<boolean> {
  const { with: records } = await withWhom(on.id, remote)
  if (records.length === 0) return false
  const owners = await read(database => database.selectDistinct({ id: record.ownerId }).from(record).where(inArray(record.id, records)))
  return (await whoAnswers(owners.flatMap(({ id }) => id ?? []), on)).length > 0
}

async function signedIn(ids: string[], now: Date): Promise<string[]> {
  const there = await read(database => database.selectDistinct({ id: signIn.colleagueId }).from(signIn)
    .where(and(inArray(signIn.colleagueId, ids), gt(signIn.endsAt, now))))
  return there.map(({ id }) => id)
}
