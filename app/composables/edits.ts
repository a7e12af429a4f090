import type { RecordForm } from '~~/shared/schemas/record'

const same = (one: unknown, other: unknown) => JSON.stringify(one ?? null) === JSON.stringify(other ?? null)

/** By the fields of a form that were changed, and by each own field among them, what they held before. */
export function changedFrom(before: RecordForm, now: RecordForm): Partial<RecordForm> {
  const keys = Object.keys(before) as (keyof RecordForm)[]
  const changed = keys.filter(key => key !== 'fields' && !same(before[key], now[key]))
  const was: Record<string, unknown> = Object.fromEntries(changed.map(key => [key, before[key]]))
  const keysOfOwn = new Set([...Object.keys(before.fields), ...Object.keys(now.fields)])
  const own = [...keysOfOwn].filter(key => !same(before.fields[key], now.fields[key]))
  if (own.length > 0) was.fields = Object.fromEntries(own.map(key => [key, before.fields[key] ?? null]))
  return was
}

/** What was seen, with what others have put there meanwhile and what was shown. */
export const seenSince = (seen: RecordForm, shown: Partial<RecordForm> | null): RecordForm =>
  ({ ...seen, ...shown, fields: { ...seen.fields, ...shown?.fields } })
