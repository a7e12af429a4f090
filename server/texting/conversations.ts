import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '../db/door'
import { conversation } from '../db/schema'
import { announce } from '../live/notices'
import { lineBelongs, type Line } from './lines'

/** The conversation between a line and a number, made if there is none, and brought up to now. */
export async function openConversation(lineId: string, remote: string, now: Date): Promise<string> {
  return tx(async (database) => {
    const [open] = await database.insert(conversation)
      .values({ id: uuid(), lineId, remote, lastAt: now })
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
