import { eq, or, sql } from 'drizzle-orm'
import { read } from '../db/door'
import { at } from '../db/instants'
import { callDeclined, colleague, signIn } from '../db/schema'
import type { Line } from '../texting/lines'
import { whoAnswers } from '../texting/who-answers'

/**
 * With whom a call rings: nobody while its line is silent; else who answers it, has not declined it, and is signed in or has
 * telephones of their own.
 */
export async function withWhomItRings(callId: string, on: Line, now: Date): Promise<string[]> {
  if (!on.active) return []
  const there = await read(database =>
    database
      .select({ id: colleague.id })
      .from(colleague)
      .where(sql`not exists (select 1 from ${callDeclined} d where d.call_id = ${callId}::uuid and d.colleague_id = ${colleague.id})
        and ${or(
          eq(colleague.callsWith, 'own-phones'),
          sql`exists (select 1 from ${signIn} s where s.colleague_id = ${colleague.id} and s.ends_at > ${at(now)})`,
        )}`),
  )
  return whoAnswers(there.map(({ id }) => id), on)
}
