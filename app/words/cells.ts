import { valueIn } from '~~/core/fields/own'
import { showPhone } from '~~/core/phone/show'
import type { Column } from '~~/shared/columns'
import type { RecordRow } from '~~/shared/record'
import { countryName } from './country'
import { amount } from './money'
import { ago, calendarDay, timeOfDay } from './time'

type Shown = (row: RecordRow, now: number) => string | null

const BUILT_IN: Record<string, Shown> = {
  'name': row => row.name,
  'company': row => row.company?.name ?? null,
  'sector': row => row.company?.sector ?? null,
  'people': row => row.people,
  'about': row => row.about,
  'pipeline': row => row.pipeline?.name ?? null,
  'over': row => row.over ? 'over' : null,
  'stage': row => row.stage,
  'city': row => row.city,
  'phone': row => row.phone?.startsWith('+') ? showPhone(row.phone) : row.phone,
  'owner': row => row.owner.name,
  'last-contact': (row, now) => row.lastContactAt ? ago(row.lastContactAt, now) : null,
  'tags': row => row.tags.join(', '),
  'groups': row => row.groups?.join(', ') ?? null,
  'title': row => row.title,
  'mail': row => row.mail,
  'street': row => row.street,
  'postcode': row => row.postcode,
  'region': row => row.region,
  'country': row => countryName(row.country),
  'opted-out': row => row.optedOut ? 'opted out' : null,
  'made': (row, now) => ago(row.madeAt, now),
}

/** What stands in a cell of a list. */
export function cell(row: RecordRow, column: Column, now: number): string {
  const shown = valueIn(BUILT_IN, column.key)
  return (shown ? shown(row, now) : ownField(valueIn(row.fields, column.key.slice('own.'.length)), column, row.fields)) ?? ''
}

/**
 * A field of the module, written as its kind is.
 *
 * @param fields of the same record, among which the currency of an amount may be
 */
export function ownField(value: unknown, { shows }: Pick<Column, 'shows'>, fields: Record<string, unknown>): string | null {
  if (value === null || value === undefined || value === '') return null
  switch (shows) {
    case 'date': return calendarDay(String(value))
    case 'time': return timeOfDay(String(value))
    case 'money': return amount(Number(value), String(fields.currency ?? 'USD'))
    case 'number': return Number(value).toLocaleString('en-US')
    case 'yes-no': return value === true || value === 'true' ? 'yes' : 'no'
    default: return String(value)
  }
}
