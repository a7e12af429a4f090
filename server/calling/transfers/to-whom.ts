import { asc, eq, ne } from 'drizzle-orm'
import type { TransferTo } from '~~/shared/calling'
import { can } from '~~/shared/permissions'
import { tx } from '../../db/door'
import { colleague, line } from '../../db/schema'
import { colleagueAtWork, type SignedIn } from '../../identity/sign-in'
import { lineBelongs } from '../../texting/lines'
import { whoIsOnCall } from '../on-call'
import { mustBeMyCall, type StoredCall } from '../stored'

/** Those who answer the line of a call too, by name; whoever is on a call is told so. */
export async function colleaguesToHandTo(asker: SignedIn, { lineId }: Pick<StoredCall, 'lineId'>): Promise<TransferTo[]> {
  return tx(async (database) => {
    const [on] = await database.select().from(line).where(eq(line.id, lineId))
    const others = await database
      .select({ id: colleague.id, name: colleague.name, title: colleague.title })
      .from(colleague)
      .where(ne(colleague.id, asker.id))
      .orderBy(asc(colleague.name))
    const answer: typeof others = []
    for (const one of others) {
      const at = await colleagueAtWork(one.id)
      if (at && can(at, 'line.answer', lineBelongs(on!))) answer.push(one)
    }
    const busy = await whoIsOnCall(answer.map(({ id }) => id))
    return answer.map(one => ({ ...one, busy: busy.has(one.id) ? 'on-a-call' : null }))
  })
}

/** To whom my call can be handed. */
export const toWhom = (asker: SignedIn, callId: string): Promise<TransferTo[]> =>
  tx(async () => colleaguesToHandTo(asker, await mustBeMyCall(asker, callId)))
