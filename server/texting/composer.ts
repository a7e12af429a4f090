import { desc, eq, inArray } from 'drizzle-orm'
import type { ComposerStart } from '~~/shared/composer'
import { tx } from '../db/door'
import { conversation, phone } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { mustHold } from '../records/one'
import { linesOf } from './lines'

/** What the composer needs for a record: my lines, and the one used last with each of its numbers. */
export async function startComposer(asker: SignedIn, recordId: string): Promise<ComposerStart> {
  return tx(async (database) => {
    await mustHold(asker, 'record.see', recordId)
    const lines = await linesOf(asker)
    const numbers = (await database.select({ e164: phone.e164 }).from(phone).where(eq(phone.recordId, recordId))).flatMap(row => row.e164 ?? [])
    const used = numbers.length === 0 ? [] : await database.select().from(conversation).where(inArray(conversation.other, numbers)).orderBy(desc(conversation.lastAt))
    const mine = used.filter(one => lines.some(line => line.id === one.lineId))
    return { lines, lastLine: Object.fromEntries(mine.reverse().map(one => [one.other, one.lineId])) }
  })
}
