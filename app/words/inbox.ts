import type { InboxFilter, InboxItem } from '~~/shared/inbox'
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

export const WHOSE_WORDS: Record<InboxItem['whose'], string> = {
  me: 'Waiting for you',
  nobody: 'Waiting, and with nobody yet',
  colleague: 'Waiting, with a colleague',
}

export const nameOf = ({ record, remote }: Pick<InboxItem, 'record' | 'remote'>): string => record?.name ?? showPhone(remote)
