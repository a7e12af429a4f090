import { isDeepStrictEqual } from 'node:util'
import { recordForm, type EditRecord, type RecordForm } from '~~/shared/schemas/record'
import type { StoredRecord } from './one'

/** What a form of a record as it stands would hold. */
export function formOf(stored: StoredRecord, phones: { id: string, label: string, typed: string }[]): RecordForm {
  return recordForm.cast({ ...stored, phones: phones.map(({ id, label, typed }) => ({ id, label, typed })) }, { stripUnknown: true })
}

/**
 * Puts what somebody has changed in a form onto what stands there now: the rest of the form was only looked at, and whoever
 * changed that meanwhile keeps it.
 *
 * @param form with `was`, by field: what stood on screen before it was changed
 * @returns the form as it is to be saved, and the fields that others have changed to something else meanwhile
 */
export function merge(now: RecordForm, form: EditRecord): { form: RecordForm, clashes: Set<string> } {
  const was = form.was ?? {}
  const clashes = new Set<string>()
  const theirs = <T>(key: string, before: T, there: T, mine: T): T => {
    if (!same(before, there) && !same(there, mine)) clashes.add(key)
    return mine
  }
  const merged: Record<string, unknown> = { ...now, fields: { ...now.fields } }
  const known = recordForm.cast({ ...was, fields: was.fields ?? {} }) as Record<string, unknown>
  for (const key of Object.keys(was)) {
    if (key !== 'fields' && key in recordForm.fields)
      merged[key] = theirs(key, known[key], now[key as keyof RecordForm], form[key as keyof RecordForm])
  }
  for (const [key, before] of Object.entries((was.fields ?? {}) as Record<string, unknown>))
    (merged.fields as Record<string, unknown>)[key] = theirs(key, before, now.fields[key], form.fields[key])
  return { form: merged as unknown as RecordForm, clashes }
}

/** Nothing in a field is nothing, however it is said. */
const same = (one: unknown, other: unknown) => isDeepStrictEqual(plain(one), plain(other))
const plain = (value: unknown): unknown => value === undefined || value === '' ? null : JSON.parse(JSON.stringify(value))
