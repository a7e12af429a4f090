import type { OwedFor } from '~~/core/owed/owed'
import type { InboxFilter, InboxItem, TextShelf } from '~~/shared/inbox'
import { span } from './time'
import type { PastNotice } from '~~/shared/notices'
import { showPhone } from '~~/core/phone/show'

export const FILTER_WORDS: Record<InboxFilter, string> = {
  'owed': 'Waiting',
  'unseen': 'Not seen',
  'mine': 'Mine',
  'unassigned': 'With nobody',
  'put-back': 'Put back',
  'no-record': 'On no record',
  'scheduled': 'Scheduled',
  'failed': 'Failed',
  'sent': 'Sent only',
  'received': 'Received only',
}

export const TEXT_SHELF_WORDS: Record<TextShelf, { name: string, none: string }> = {
  received: { name: 'Received', none: 'Nothing has come in yet.' },
  sent: { name: 'Sent', none: 'Nothing was sent yet.' },
  scheduled: { name: 'Scheduled', none: 'No text waits for its moment. “Later” in the composer schedules one.' },
  held: { name: 'Held', none: 'No text is held. One that must not leave at its hour, or at all, waits here.' },
  failed: { name: 'Failed', none: 'Every text has arrived, as far as the carriers have said.' },
}

export const WHOSE_WORDS: Record<InboxItem['whose'], string> = {
  me: 'Waiting for you',
  nobody: 'Waiting, and with nobody yet',
  colleague: 'Waiting, with a colleague',
}

export const nameOf = ({ record, remote }: Pick<InboxItem, 'record' | 'remote'>): string => record?.name ?? showPhone(remote)

/** The newest of a conversation in one line. */
export function sayLast(last: InboxItem['last']): string {
  if (!last) return 'Nothing was said yet.'
  const { kind, words, ours, by, state } = last
  if (kind === 'text') return `${ours ? `${by ?? 'Plauder'}: ` : ''}${words || 'a picture'}`
  if (state === 'missed') return 'Called, and nobody answered'
  if (state === 'voicemail') return 'Left a message'
  return ours ? `${by ?? 'Somebody'} called${state === 'tried' ? ', nobody answered' : ''}` : `Called, talked with ${by ?? 'somebody'}`
}

/** For what an answer is owed, where it is not a text. */
const OWED_FOR_WORDS: Record<OwedFor, string> = {
  'text': '',
  'missed-call': 'missed call',
  'voicemail': 'left a message',
  'put-back': 'put back',
  'handed': 'assigned',
}

/** "missed call, waits 4 min". */
export const sayWaits = ({ waitsSince, waitsFor }: { waitsSince: number, waitsFor: OwedFor }, now: number): string =>
  [OWED_FOR_WORDS[waitsFor], `waits ${span(now - waitsSince)}`].filter(Boolean).join(', ')

/** What came in, in one line. */
export function sayNotice({ kind, words, by }: Pick<PastNotice, 'kind' | 'words' | 'by'>): string {
  if (kind === 'missed-call') return 'Called, and nobody answered'
  if (kind === 'voicemail') return 'Left a message'
  if (kind === 'handed') return `${by ?? 'The order of its line'} assigned it to you${words ? `: ${words}` : ''}`
  return words || 'a picture'
}
