import type { ImportedRow } from './read-row'

/** What is done with a row that is somebody who is there already. */
export type OnDuplicate = 'join' | 'keep-both' | 'leave-out'
export const ON_DUPLICATE = ['join', 'keep-both', 'leave-out'] as const satisfies readonly OnDuplicate[]

/** By what a row is found to be somebody who is there, in the order in which it is looked for. */
export const DUPLICATE_BY = ['number', 'mail', 'name'] as const
export type DuplicateBy = typeof DUPLICATE_BY[number]
export type DuplicateRules = Record<DuplicateBy, OnDuplicate>

/** Whom numbers, mail addresses and names belong to, as far as it is known. */
export interface Known {
  number: (e164: string) => string | undefined
  mail: (mail: string) => string | undefined
  name: (name: string) => string | undefined
}

/** What becomes of a row. */
export type Fate
  = | { kind: 'new' }
    | { kind: 'joined', to: string, by: DuplicateBy }
    | { kind: 'left-out', to: string, by: DuplicateBy }
    | { kind: 'there-already' }
    | { kind: 'refused', reasons: string[] }

/**
 * What becomes of a row that was read: the first who shares a number, else a mail address, else a name
 * decides, and the rule for that kind. Keeping both by number still looks for the mail address.
 */
export function fateOf(
  { phones, columns, name }: ImportedRow,
  known: Known,
  rules: DuplicateRules,
): Exclude<Fate, { kind: 'refused' | 'there-already' }> {
  const found: Record<DuplicateBy, string | undefined> = {
    number: phones.map(({ e164 }) => (e164 ? known.number(e164) : undefined)).find(Boolean),
    mail: columns.mail ? known.mail(mailKey(columns.mail)) : undefined,
    name: known.name(nameKey(name)),
  }
  for (const by of DUPLICATE_BY) {
    const to = found[by]
    if (!to || rules[by] === 'keep-both') continue
    return { kind: rules[by] === 'join' ? 'joined' : 'left-out', to, by }
  }
  return { kind: 'new' }
}

/** Mail addresses and names are compared without regard to capitals. */
export const mailKey = (mail: string): string => mail.toLowerCase()
export const nameKey = (name: string): string => name.toLowerCase().replace(/\s+/g, ' ').trim()

/**
 * What a row says, in one form for everything that says the same: by it the same row of the same file is
 * known again.
 */
export function rowKey({ name, columns, fields, phones, tags, people, note, leftOut }: ImportedRow): string {
  const sorted = (values: object) => Object.entries(values).sort(([a], [b]) => a < b ? -1 : 1)
  return JSON.stringify([name, sorted(columns), sorted(fields), phones.map(({ e164, typed }) => e164 ?? typed), tags, note,
    ...leftOut.map(({ text }) => text), ...people.length > 0 ? [people] : []])
}
