import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '../db/door'
import { phone, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'
import { authorize } from './one'

const NOT_THEIRS = 'somebody else’s'

/**
 * A number is found to be somebody else's: it stays on the record as it was typed, marked, and is neither called nor
 * texted for this record any more.
 *
 * @param because what set it off, such as a call: kept with the entry
 * @returns the ids of the record's numbers that were marked
 */
export async function markNotTheirs(asker: SignedIn, recordId: string, e164: string, now: Date, because: object = {}): Promise<string[]> {
  return tx(async (database) => {
    await authorize(asker, 'record.edit', recordId)
    const marked = await database.update(phone).set({ unusable: 'not-theirs', wrongE164: e164, e164: null })
      .where(and(eq(phone.recordId, recordId), eq(phone.e164, e164))).returning({ id: phone.id })
    if (marked.length > 0) await logNumber(asker, recordId, { e164, from: e164, to: NOT_THEIRS }, now, because)
    return marked.map(({ id }) => id)
  })
}

/**
 * Takes that back, for those of the numbers that stand there as they were marked.
 *
 * @returns whether there was any
 */
export async function giveNumberBack(asker: SignedIn, recordId: string, phoneIds: string[], now: Date): Promise<boolean> {
  return tx(async (database) => {
    await authorize(asker, 'record.edit', recordId)
    const back = await database
      .update(phone)
      .set({ unusable: null, e164: sql`${phone.wrongE164}`, wrongE164: null })
      .where(and(eq(phone.recordId, recordId), inArray(phone.id, phoneIds), eq(phone.unusable, 'not-theirs')))
      .returning({ e164: phone.e164 })
    if (back[0]) await logNumber(asker, recordId, { e164: back[0].e164!, from: NOT_THEIRS, to: back[0].e164! }, now)
    return back.length > 0
  })
}

async function logNumber(
  asker: SignedIn,
  recordId: string,
  { e164, from, to }: { e164: string, from: string, to: string },
  now: Date,
  because: object = {},
): Promise<void> {
  await appendEntry(
    {
      id: uuid(),
      at: now,
      kind: 'fields-changed',
      colleagueId: asker.id,
      data: { ...because },
      content: { changes: [{ field: 'phones', label: `Number ${e164}`, from, to }] },
    },
    [recordId],
  )
  const [changed] = await tx(database =>
    database
      .update(record)
      .set({ version: sql`${record.version} + 1` })
      .where(eq(record.id, recordId))
      .returning(),
  )
  announce({ kind: 'record', recordId }, 'record.see', [changed!])
}
