import type { Changeable, Scope } from '~~/shared/permissions'

/** What can be given to reps and leads more or less of; the order in which it is shown. */
export const RIGHT_WORDS: Record<Changeable, { name: string, about: string }> = {
  'record.see': { name: 'See records', about: 'with their timelines' },
  'record.edit': { name: 'Change records', about: 'with their numbers, notes and tasks' },
  'line.answer': { name: 'Text and call from lines', about: 'and see the conversations on them' },
  'bulk.work': { name: 'Text many at once', about: 'and see what became of it' },
  'recording.hear': { name: 'Listen to recordings', about: 'of whose calls' },
  'record.import': { name: 'Bring records in', about: 'as a file, for whom' },
  'record.export': { name: 'Take records out', about: 'as a file' },
  'template.edit': { name: 'Write templates', about: 'and change them' },
  'template.for-all': { name: 'Offer templates to everybody', about: 'and not to a team alone' },
  'group.edit': { name: 'Change groups', about: 'whom others see in them is what they may see anyway' },
}

export const SCOPE_WORDS: Record<Scope, string> = {
  none: 'no',
  own: 'their own',
  team: 'theirs and their teams’',
  people: 'of everybody in their teams',
  all: 'all of the firm',
}

/** Where there is nothing in between, it is yes or no. */
export const sayScope = (permission: Changeable, scope: Scope): string =>
  permission === 'template.for-all' ? (scope === 'none' ? 'no' : 'yes') : SCOPE_WORDS[scope]
