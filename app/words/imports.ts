import type { OnDuplicate } from '~~/core/import/fate'
import type { ImportProgress } from '~~/shared/import'
import type { FateKind, ForeseenRow } from '~/workers/import-file'

/** What becomes of rows, as the heads of their list. */
export const FATE_WORDS: Record<FateKind, string> = {
  'new': 'New',
  'joined': 'Added to who is there',
  'left-out': 'Left out',
  'there-already': 'Imported before',
  'refused': 'Refused',
}

export const DUPLICATE_WORDS: Record<OnDuplicate, string> = {
  'join': 'add to who is there',
  'keep-both': 'keep both',
  'leave-out': 'leave the row out',
}

const BY: Record<string, string> = { number: 'the same number', mail: 'the same mail address', name: 'the same name' }

/** What becomes of one row, and of which of its cells only a note. */
export const sayRow = (row: Pick<ForeseenRow, 'fate' | 'with' | 'leftOut'>): string =>
  [sayFate(row), ...row.leftOut.map(({ heading, text, reason }) => `${heading} “${text}” goes into its note: ${reason}`)].join('. ')

function sayFate({ fate, with: partner }: Pick<ForeseenRow, 'fate' | 'with'>): string {
  switch (fate.kind) {
    case 'new': return 'becomes a new record'
    case 'joined': return `is added to ${partner ?? 'a record'}, ${BY[fate.by]}`
    case 'left-out': return `is left out: ${partner ?? 'a record'} has ${BY[fate.by]}`
    case 'there-already': return 'was imported before'
    case 'refused': return fate.reasons.join(' ')
  }
}

export const STATE_WORDS: Record<ImportProgress['state'], string> = {
  'loading': 'being sent',
  'running': 'being imported',
  'done': 'imported',
  'stopped': 'stopped',
  'taking-back': 'being taken back',
  'taken-back': 'taken back',
}

/** "280 new, 20 added to who was there, 7 refused" */
export function sayCounts({ made, joined, leftOut, thereAlready, refused, partly, keptBack }: ImportProgress): string {
  const parts: [number, string][] = [
    [made, 'new'],
    [joined, 'added to who was there'],
    [leftOut, 'left out'],
    [thereAlready, 'imported before'],
    [refused, 'refused'],
    [partly, 'with a cell that went into a note'],
    [keptBack, 'kept, for somebody has worked with them since'],
  ]
  return parts.filter(([count]) => count > 0).map(([count, words]) => `${count.toLocaleString('en-US')} ${words}`).join(', ')
}
