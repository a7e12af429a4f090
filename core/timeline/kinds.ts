/** What a timeline can hold in this version. Entries are added, never changed. */
export const ACTIVITY_KINDS = ['text-out', 'text-in', 'note', 'record-made', 'fields-changed', 'stage-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed', 'call-out', 'call-in', 'task-made', 'task-done', 'task-again', 'task-withdrawn'] as const
export type ActivityKind = typeof ACTIVITY_KINDS[number]

/** Which side an entry came from, for the rhythm. */
export function sideOf(kind: ActivityKind): 'ours' | 'theirs' | 'call' | null {
  if (kind === 'text-out') return 'ours'
  if (kind === 'text-in') return 'theirs'
  if (kind === 'call-out' || kind === 'call-in') return 'call'
  return null
}

/** Kinds that count as contact with the person (common practice: in either direction). */
export function isContact(kind: ActivityKind): boolean {
  return sideOf(kind) !== null
}
