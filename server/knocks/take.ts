import { and, eq, isNull, sql } from 'drizzle-orm'
import { tx } from '../db/door'
import { at } from '../db/instants'
import { knock, knockFor, line, conversation } from '../db/schema'
import { conflict, notFound } from '../http/problem'
import { firstNames } from '../identity/colleagues'
import type { SignedIn } from '../identity/sign-in'
import { takeTask } from '../tasks/tasks'
import { assign } from '../texting/assign'
import { announceKnock } from './knock'
import { stands } from './stands'

/**
 * Takes what knocks: whoever is first has it, with its conversation or its task, and the others see by whom.
 *
 * @throws Problem 404 for one that is not with the asker, 409 for one that a colleague has, or that is settled
 */
export async function takeKnock(asker: SignedIn, knockId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database
      .select({ aboutId: knock.aboutId, conversationId: knock.conversationId, taskId: knock.taskId, takenBy: knock.takenBy })
      .from(knock)
      .innerJoin(knockFor, and(eq(knockFor.knockId, knock.id), eq(knockFor.colleagueId, asker.id)))
      .where(eq(knock.id, knockId))
      .for('update', { of: knock })
    if (!found) throw notFound('knock')
    if (found.takenBy === asker.id) return
    if (found.takenBy) {
      const by = (await firstNames([found.takenBy])).get(found.takenBy)
      throw conflict('taken', 'Taken', `${by} has taken it already.`, { by })
    }
    const { rows: [still] } = await database.execute(sql`select 1 from ${knock} k where k.id = ${knockId}::uuid and ${stands(now)}`)
    if (!still) throw conflict('settled', 'Settled', 'Somebody has seen to it meanwhile.')
    await takeWhatItIsAbout(asker, found, now)
    // whatever else knocks about the same goes with it
    const taken = await database.update(knock).set({ takenBy: asker.id, endedAt: now })
      .where(and(eq(knock.aboutId, found.aboutId), isNull(knock.endedAt))).returning({ id: knock.id })
    const whom = await database.selectDistinct({ id: knockFor.colleagueId }).from(knockFor)
      .where(sql`${knockFor.knockId} = any(${sql.param(taken.map(({ id }) => id))}::uuid[])`)
    announceKnock(whom.map(({ id }) => id))
  })
}

type About = Pick<typeof knock.$inferSelect, 'conversationId' | 'taskId'>

async function takeWhatItIsAbout(asker: SignedIn, { conversationId, taskId }: About, now: Date): Promise<void> {
  if (taskId) return takeTask(asker, taskId, now)
  await tx(async (database) => {
    const [over] = await database.select({ ownerId: line.colleagueId }).from(conversation).innerJoin(line, eq(line.id, conversation.lineId))
      .where(eq(conversation.id, conversationId!))
    // on a line of my own it is mine already
    if (over!.ownerId !== asker.id) await assign(asker, conversationId!, { colleagueId: asker.id, why: '' }, now)
  })
}

/** I have seen what knocks at me, on all of my devices. */
export async function seeKnocks(asker: SignedIn, now: Date): Promise<void> {
  await tx(async (database) => {
    const { rows } = await database.execute(sql`
      update ${knockFor} f set seen_at = ${at(now)} from ${knock} k
      where k.id = f.knock_id and f.colleague_id = ${asker.id}::uuid and coalesce(f.seen_at < k.at, true) returning 1`)
    if (rows.length > 0) announceKnock([asker.id])
  })
}
