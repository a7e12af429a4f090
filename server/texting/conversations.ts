import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Asker } from '~~/shared/permissions'
import { tx } from '../db/door'
import { conversation, line } from '../db/schema'
import { notFound } from '../http/problem'
import { announce } from '../live/notices'
import { visible } from '../reading/visible'
import { lineBelongs, type Line } from './lines'

/** The conversation between a line and a number, made if there is none, and brought up to now. */
export async function openConversation(lineId: string, remote: string, now: Date): Promise<string> {
  return tx(async (database) => {
    const [open] = await database.insert(conversation)
      .values({ id: uuid(), kind: 'text', lineId, remote, lastAt: now })
      .onConflictDoUpdate({ target: [conversation.lineId, conversation.remote], set: { lastAt: now } })
      .returning({ id: conversation.id })
    return open!.id
  })
}

/** An answer is owed, since the first text that has none. */
export async function waitsSince(conversationId: string, since: Date): Promise<void> {
  await tx(database => database.update(conversation)
    .set({ waitsSince: sql`least(coalesce(${conversation.waitsSince}, 'infinity'), ${since.toISOString()}::timestamptz)` })
    .where(eq(conversation.id, conversationId)))
}

export function announceConversation(conversationId: string, line: Pick<Line, 'colleagueId' | 'teamId'>, incoming = false): void {
  announce({ kind: 'conversation', conversationId, incoming }, 'line.answer', [lineBelongs(line)])
}

/**
 * "Nothing to answer": a colleague says that this text needs none.
 *
 * @throws Problem 404 if its line is not mine to answer
 */
export async function settleConversation(asker: Asker, conversationId: string): Promise<void> {
  await tx(async (database) => {
    const [of] = await database.select({ line }).from(conversation)
      .innerJoin(line, and(eq(line.id, conversation.lineId), visible(asker, 'line.answer', { owner: line.colleagueId, team: line.teamId })))
      .where(eq(conversation.id, conversationId))
    if (!of) throw notFound('conversation')
    await database.update(conversation).set({ waitsSince: null }).where(eq(conversation.id, conversationId))
    announceConversation(conversationId, of.line)
  })
}
