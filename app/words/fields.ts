import type { FieldKind } from '~~/core/template/fields'

/** The kinds of fields in words. */
export const KIND_WORDS: Record<FieldKind, string> = {
  'text': 'Words',
  'number': 'Number',
  'money': 'Amount of money',
  'date': 'Day',
  'time': 'Time of day',
  'choice': 'One of several',
  'yes-no': 'Yes or no',
  'phone': 'Telephone number',
  'link': 'Page on the web',
  'mail': 'Mail address',
}
