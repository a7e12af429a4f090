import { valueIn } from '~~/core/fields/own'
import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { sayFieldValue, type FieldValue } from '~~/core/fields/value'
import { keyOf } from '~~/shared/fields'
import { tx } from '../db/door'
import { record } from '../db/schema'
import { conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'
import { customFieldsOf } from './fields'
import { authorize } from './one'

/**
 * Sets one of a record's own fields to a value of its kind.
 *
 * @param from what it must still be; whatever it is, if left out
 * @param because what set it off, such as a call: kept with the entry
 * @returns what it was before
 * @throws Problem 409 where the field is gone, or somebody has changed it meanwhile
 */
export async function setOwnField(
  asker: SignedIn,
  recordId: string,
  key: string,
  value: FieldValue,
  now: Date,
  { from, because = {} }: { from?: FieldValue, because?: object } = {},
): Promise<FieldValue> {
  return tx(async (database) => {
    const before = await authorize(asker, 'record.edit', recordId)
    const field = (await customFieldsOf(before.module)).find(one => keyOf(one) === key)
    if (!field) throw conflict('field-gone', 'The field is gone', 'This field is retired, so nothing is written into it any more.')
    const was = (valueIn(before.fields, key) ?? null) as FieldValue
    if (from !== undefined && was !== from)
      throw conflict('changed-meanwhile', 'Changed meanwhile', `Somebody has changed ${field.label} since.`)
    if (was === value) return was
    const { [key]: _was, ...others } = before.fields
    const [changed] = await database
      .update(record)
      .set({ fields: value === null ? others : { ...others, [key]: value }, version: sql`${record.version} + 1` })
      .where(eq(record.id, recordId))
      .returning()
    const say = (one: FieldValue) => (one === null ? null : sayFieldValue(one))
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'fields-changed',
        colleagueId: asker.id,
        data: { ...because },
        content: { changes: [{ field: key, label: field.label, from: say(was), to: say(value) }] },
      },
      [recordId],
    )
    announce({ kind: 'record', recordId }, 'record.see', [changed!])
    return was
  })
}
