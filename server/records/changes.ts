import { valueIn } from '~~/core/fields/own'
import type { Field } from '~~/core/template/fields'
import { keyOf } from '~~/shared/fields'
import type { StoredRecord } from './one'

/** One field that changed, in words for the timeline. */
export interface Change { field: string, label: string, from: string | null, to: string | null }

type Numbers = { label: string, typed: string }[]

const LABELS: [keyof StoredRecord, string][] = [
  ['firstName', 'First name'],
  ['lastName', 'Last name'],
  ['name', 'Name'],
  ['title', 'Role'],
  ['street', 'Street'],
  ['city', 'City'],
  ['region', 'State or province'],
  ['postcode', 'Postcode'],
  ['country', 'Country'],
  ['mail', 'Mail address'],
  ['zone', 'Time zone'],
  ['wishFrom', 'Prefers to be reached from'],
  ['wishTo', 'Prefers to be reached until'],
]

/** The same by the name of the column. */
export const COLUMN_LABELS: Record<string, string> = Object.fromEntries(LABELS)

const LINKS = [['ownerId', 'Owner'], ['companyId', 'Company'], ['pipelineId', 'Pipeline'], ['stageId', 'Stage'], ['aboutId', 'On']] as const

/**
 * What differs between two states of a record, with its numbers and its own fields.
 *
 * @param names of what they speak of by an id
 */
export function changesBetween(
  before: StoredRecord, phonesBefore: Numbers, after: StoredRecord, phonesAfter: Numbers, custom: Field[], names: Map<string, string>,
): Change[] {
  const named = (id: string | null) => names.get(id ?? '') ?? null
  const compared: Change[] = [
    ...LABELS.map(([field, label]) => ({ field, label, from: say(before[field]), to: say(after[field]) })),
    ...[...new Set([...Object.keys(before.fields), ...Object.keys(after.fields)])].map(key => ({
      field: key,
      label: custom.find(field => keyOf(field) === key)?.label ?? key,
      from: say(valueIn(before.fields, key)),
      to: say(valueIn(after.fields, key)),
    })),
    { field: 'tags', label: 'Tags', from: sayTags(before.tags), to: sayTags(after.tags) },
    ...LINKS.map(([field, label]) => ({ field: field.slice(0, -'Id'.length), label, from: named(before[field]), to: named(after[field]) })),
    { field: 'phones', label: 'Numbers', from: sayNumbers(phonesBefore), to: sayNumbers(phonesAfter) },
  ]
  // a person's whole name is only its two parts again
  const renamed = compared.some(change => ['firstName', 'lastName'].includes(change.field) && change.from !== change.to)
  return compared.filter(change => change.from !== change.to && !(renamed && change.field === 'name'))
}

const say = (value: unknown) =>
  value === null || value === undefined || value === '' ? null : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
const sayNumbers = (numbers: Numbers) => numbers.length > 0 ? numbers.map(({ label, typed }) => `${label} ${typed}`).join(', ') : null
const sayTags = (tags: string[]) => tags.length > 0 ? tags.join(', ') : null
