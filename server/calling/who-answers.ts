import { eq, or, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { read } from '../db/door'
import { at } from '../db/instants'
import { callDeclined, colleague, signIn } from '../db/schema'
import { colleagueAtWork } from '../identity/sign-in'
import { lineBelongs, type Line } from '../texting/lines'

/** With whom a call rings: who answers its line, has not declined it, and is signed in or has telephones of their own. */
export async function withWhomItRings(callId: string, on: Line, now: Date): Promise<string[]> {
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

/** Who of these colleagues answers a line. */
export async function whoAnswers(colleagueIds: string[], on: Line): Promise<string[]> {
  const answer: string[] = []
  for (const id of colleagueIds) {
    const atWork = await colleagueAtWork(id)
    if (atWork && can(atWork, 'line.answer', lineBelongs(on))) answer.push(id)
  }
  return answer
}
