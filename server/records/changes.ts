import type { Field } from '~~/core/template/fields'
import type { StoredRecord } from './one'

/** One field that changed, in words for the timeline. */
export interface Change { field: string, label: string, from: string | null, to: string | null }

type Numbers = { label: string, typed: string }[]

const LABELS: [keyof StoredRecord, string][] = [
  ['firstName', 'First name'], ['lastName', 'Last name'], ['name', 'Name'], ['title', 'Role'], ['stage', 'Stage'],
  ['street', 'Street'], ['city', 'City'], ['region', 'State or province'], ['postcode', 'Postcode'], ['country', 'Country'], ['mail', 'Mail address'], ['zone', 'Time zone'],
]

/** What differs between two states of a record, with its numbers and its own fields. */
export function changesBetween(
  before: StoredRecord, phonesBefore: Numbers, after: StoredRecord, phonesAfter: Numbers, custom: Field[], companies: Map<string, string>,
): Change[] {
  const company = ({ companyId }: StoredRecord) => companies.get(companyId ?? '') ?? null
  const compared: Change[] = [
    ...LABELS.map(([field, label]) => ({ field, label, from: say(before[field]), to: say(after[field]) })),
    ...[...new Set([...Object.keys(before.fields), ...Object.keys(after.fields)])].map(key => ({
      field: key,
      label: custom.find(field => field.path === `person.${key}`)?.label ?? key,
      from: say(before.fields[key]),
      to: say(after.fields[key]),
    })),
    { field: 'tags', label: 'Tags', from: sayTags(before.tags), to: sayTags(after.tags) },
    { field: 'company', label: 'Company', from: company(before), to: company(after) },
    { field: 'phones', label: 'Numbers', from: sayNumbers(phonesBefore), to: sayNumbers(phonesAfter) },
  ]
  // a person's whole name is only its two parts again
  const named = compared.some(change => ['firstName', 'lastName'].includes(change.field) && change.from !== change.to)
  return compared.filter(change => change.from !== change.to && !(named && change.field === 'name'))
}

const say = (value: unknown) => value === null || value === undefined || value === '' ? null : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
const sayNumbers = (numbers: Numbers) => numbers.length > 0 ? numbers.map(({ label, typed }) => `${label} ${typed}`).join(', ') : null
const sayTags = (tags: string[]) => tags.length > 0 ? tags.join(', ') : null
