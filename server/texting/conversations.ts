import { and, eq, lt, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Asker } from '~~/shared/permissions'
import { appendEntry, type NewEntry } from '../activity/append'
import { withWhom } from '../activity/with-whom'
import { tx } from '../db/door'
import { conversation, conversationEvent, line } from '../db/schema'
import { notFound } from '../http/problem'
import { announce } from '../live/notices'
import { visible } from '../reading/visible'
import { lineBelongs, type Line } from './lines'

export interface OpenConversation { conversation: typeof conversation.$inferSelect, line: Line }

/**
 * A conversation, for somebody who may answer it.
 *
 * @throws Problem 404 if its line is not mine to answer
 */
export async function mustAnswer(asker: Asker, conversationId: string): Promise<OpenConversation> {
  return tx(async (database) => {
    const [found] = await database.select({ conversation, line }).from(conversation)
      .innerJoin(line, and(eq(line.id, conversation.lineId), visible(asker, 'line.answer', { owner: line.colleagueId, team: line.teamId })))
      .where(eq(conversation.id, conversationId))
      .for('update', { of: conversation })
    if (!found) throw notFound('conversation')
    return found
  })
}

/** The conversation between a line and a number, made if there is none, and brought up to now; with a text that comes in if one does. */
export async function openConversation(lineId: string, remote: string, now: Date, cameIn = false): Promise<string> {
  return tx(async (database) => {
    const [open] = await database.insert(conversation)
      .values({ id: uuid(), kind: 'text', lineId, remote, lastAt: now, cameIn })
      .onConflictDoUpdate({
        target: [conversation.lineId, conversation.remote],
        set: {
          lastAt: sql`greatest(${conversation.lastAt}, excluded.last_at)`, cameIn: sql`${conversation.cameIn} or excluded.came_in`, bulkOnly: false,
        },
      })
      .returning({ id: conversation.id })
    return open!.id
  })
}

/** The same, and one that is there stays where it is among the others: nothing has been said. */
export async function conversationWith(lineId: string, remote: string, now: Date): Promise<string> {
  return tx(async (database) => {
    await database.insert(conversation).values({ id: uuid(), kind: 'text', lineId, remote, lastAt: now }).onConflictDoNothing()
    const [found] = await database.select({ id: conversation.id }).from(conversation)
      .where(and(eq(conversation.lineId, lineId), eq(conversation.remote, remote)))
    return found!.id
  })
}

/** A call that has ended is the newest of its conversation, where there is one; by itself it makes none. */
export async function bringUp(lineId: string, remote: string, at: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.update(conversation).set({ lastAt: at, bulkOnly: false })
      .where(and(eq(conversation.lineId, lineId), eq(conversation.remote, remote), lt(conversation.lastAt, at)))
      .returning({ id: conversation.id })
    if (!found) return
    const [over] = await database.select().from(line).where(eq(line.id, lineId))
    announceConversation(found.id, over!)
  })
}

export function announceConversation(conversationId: string, line: Pick<Line, 'colleagueId' | 'teamId'>, incoming = false): void {
  announce({ kind: 'conversation', conversationId, incoming }, 'line.answer', [lineBelongs(line)])
}

/** What a colleague did with a conversation, on it and on the timelines of those it is with, who may be nobody yet. */
export async function tellOf(
  { conversation: { id, remote }, line }: OpenConversation,
  entry: Pick<NewEntry, 'kind' | 'colleagueId' | 'data' | 'words' | 'content'>,
  now: Date,
): Promise<void> {
  await tx(async (database) => {
    const activityId = uuid()
    const holders = await withWhom(line.id, remote)
    await appendEntry(
      { ...entry, id: activityId, at: now, privateLineId: line.private ? line.id : null },
      holders.with,
      { recordIds: holders.along, lineId: line.id },
    )
    await database.insert(conversationEvent).values({ conversationId: id, at: now, activityId })
    announceConversation(id, line)
  })
}
