import { sql, type SQL } from 'drizzle-orm'
import { once, tx } from '../db/door'
import { at } from '../db/instants'
import { conversation, conversationSeen, line, phone } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { visible } from '../reading/visible'
import { authorize } from '../records/one'
import { mustAnswer } from './conversations'

/** I have seen a conversation up to now, on all of my devices. It settles nothing: what is owed stays owed. */
export async function seeConversation(asker: SignedIn, conversationId: string, now: Date): Promise<void> {
  await tx(async () => {
    await mustAnswer(asker, conversationId)
    await see(asker, sql`v.id = ${conversationId}::uuid`, now)
  })
}

/** I have seen what came from a number over a line up to a moment. */
export const seeFrom = (asker: SignedIn, { lineId, remote }: { lineId: string, remote: string }, until: Date): Promise<void> =>
  see(asker, sql`v.line_id = ${lineId}::uuid and v.remote = ${remote}`, until)

/** I have seen what was said with a record: the conversations with its numbers, over the lines that I answer. */
export async function seeRecord(asker: SignedIn, recordId: string, now: Date): Promise<void> {
  await tx(async () => {
    await authorize(asker, 'record.see', recordId)
    await see(asker, sql`v.remote in (select p.e164 from ${phone} p where p.record_id = ${recordId}::uuid)`, now)
  })
}

async function see({ id, ...asker }: SignedIn, which: SQL, now: Date): Promise<void> {
  const { rows } = await once<{ conversation_id: string }>(sql`
    insert into ${conversationSeen} as s (colleague_id, conversation_id, seen_at)
    select ${id}::uuid, v.id, ${at(now)} from ${conversation} v
      join ${line} l on l.id = v.line_id and ${visible({ id, ...asker }, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
      where ${which}
    on conflict (colleague_id, conversation_id) do update set seen_at = excluded.seen_at where s.seen_at < excluded.seen_at
    returning conversation_id`)
  // my other windows and devices
  for (const { conversation_id: conversationId } of rows)
    announce({ kind: 'seen', conversationId }, 'line.answer', [{ ownerId: id, teamId: null }])
}
