import { desc, inArray } from 'drizzle-orm'
import type { ComposerStart } from '~~/shared/composer'
import { isPersonModule } from '~~/shared/modules'
import { tx } from '../db/door'
import { conversation, phone } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { mustHold } from '../records/one'
import { peopleOf } from '../records/related'
import { linesOf } from './lines'

/** What the composer needs for a record: my lines, and the one used last with each of its numbers and of its people's. */
export async function startComposer(asker: SignedIn, recordId: string): Promise<ComposerStart> {
  return tx(async (database) => {
    const found = await mustHold(asker, 'record.see', recordId)
    const holders = [recordId, ...isPersonModule(found.module) ? [] : (await peopleOf(asker, found)).map(({ id }) => id)]
    const lines = await linesOf(asker)
    const numbers = (await database.select({ e164: phone.e164 }).from(phone).where(inArray(phone.recordId, holders))).flatMap(row => row.e164 ?? [])
    const used = numbers.length === 0 ? [] : await database.select().from(conversation).where(inArray(conversation.other, numbers)).orderBy(desc(conversation.lastAt))
    const mine = used.filter(one => lines.some(line => line.id === one.lineId))
    return { lines, lastLine: Object.fromEntries(mine.reverse().map(one => [one.other, one.lineId])) }
  })
}
