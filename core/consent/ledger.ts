export const CONSENT_KINDS = ['agreed', 'refused', 'annulled'] as const
export type ConsentKind = typeof CONSENT_KINDS[number]

/** What a wish is about, and how it came to us. */
export const COVERS = ['texts', 'calls', 'both'] as const
export const CONSENT_WAYS = ['text', 'form', 'by-hand', 'file'] as const

/** Where a number stands. */
export const CONSENT_STATES = ['unknown', 'agreed', 'refused'] as const

/** One line of the ledger of a number: who agreed or refused, when and how. Lines are added, never changed. */
export interface ConsentEntry {
  id: string
  /** Epoch milliseconds. */
  at: number
  /** Grows with every entry of the number: orders entries of one instant. */
  sequence: number
  kind: ConsentKind
  /** Of an entry that annuls: which one never counts from then on. */
  annulsId: string | null
  covers: typeof COVERS[number]
}

export interface ConsentState<Entry extends ConsentEntry = ConsentEntry> {
  texts: typeof CONSENT_STATES[number]
  calls: typeof CONSENT_STATES[number]
  /** The entry that decided on texts; undefined while unknown. */
  textsBy?: Entry
}

/**
 * The state of a number's consent at a moment, from its ledger alone: the newest word counts.
 * A word that was annulled by then is as if nobody had said it; what stood before it stands again.
 *
 * @param entries in any order
 * @param instant epoch milliseconds; later entries are not yet known then
 */
export function consentAt<Entry extends ConsentEntry>(entries: Entry[], instant: number): ConsentState<Entry> {
  const state: ConsentState<Entry> = { texts: 'unknown', calls: 'unknown' }
  const told = entries.filter(entry => entry.at <= instant)
  const annulled = new Set(told.map(({ annulsId }) => annulsId))
  const counting = told.filter(({ id }) => !annulled.has(id)).sort((a, b) => a.at - b.at || a.sequence - b.sequence)
  for (const entry of counting) {
    if (entry.kind === 'annulled') continue
    if (entry.covers !== 'calls') {
      state.texts = entry.kind
      state.textsBy = entry
    }
    if (entry.covers !== 'texts') state.calls = entry.kind
  }
  return state
}
