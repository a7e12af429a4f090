import type { ConsentState, CONSENT_WAYS, COVERS } from '~~/core/consent/ledger'
import type { LedgerEntry } from '~~/shared/record'

export const COVERED: Record<typeof COVERS[number], string> = { texts: 'texts', calls: 'calls', both: 'texts and calls' }

export const CONSENT_HOW: Record<typeof CONSENT_WAYS[number], string> = {
  'text': 'by a text',
  'form': 'on a form',
  'by-hand': 'as noted by a colleague',
  'file': 'by an imported file',
}

export const CONSENT_STATE_WORDS: Record<ConsentState['texts'], string> = {
  unknown: 'nothing known',
  agreed: 'agreed',
  refused: 'opted out',
}

/** "Opted out of texts, by a text to Portland shared." */
export function sayLedgerEntry({ kind, covers, how, line, by }: LedgerEntry): string {
  if (kind === 'annulled') return `What was noted about ${COVERED[covers]} was taken back${by ? ` by ${by}` : ''}.`
  const who = how === 'by-hand' && by ? `as noted by ${by}` : CONSENT_HOW[how]
  return `${kind === 'refused' ? 'Opted out of' : 'Agreed to'} ${COVERED[covers]}, ${who}${line ? ` to ${line}` : ''}.`
}
