import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { MOST_TAGS } from '~~/shared/schemas/record'
import { tx } from '../db/door'
import { record } from '../db/schema'
import { conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'
import { authorize } from './one'

/**
 * Puts a tag on a record, or takes it off.
 *
 * @param because what set it off, such as a call: kept with the entry
 * @returns whether that changed anything
 * @throws Problem 409 where a record has as many tags as it can have
 */
export async function tagRecord(
  asker: SignedIn,
  recordId: string,
  tag: string,
  on: boolean,
  now: Date,
  because: object = {},
): Promise<boolean> {
  return tx(async (database) => {
    const before = await authorize(asker, 'record.edit', recordId)
    if (before.tags.includes(tag) === on) return false
    if (on && before.tags.length >= MOST_TAGS)
      throw conflict('too-many-tags', 'Too many tags', `${before.name} has ${MOST_TAGS} tags, which is the most. Take one off first.`)
    const tags = on ? [...before.tags, tag] : before.tags.filter(one => one !== tag)
    const [changed] = await database
      .update(record)
      .set({ tags, version: sql`${record.version} + 1` })
      .where(eq(record.id, recordId))
      .returning()
    const say = (all: string[]) => (all.length > 0 ? all.join(', ') : null)
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'fields-changed',
        colleagueId: asker.id,
        data: { ...because },
        content: { changes: [{ field: 'tags', label: 'Tags', from: say(before.tags), to: say(tags) }] },
      },
      [recordId],
    )
    announce({ kind: 'record', recordId }, 'record.see', [changed!])
    return true
  })
}
