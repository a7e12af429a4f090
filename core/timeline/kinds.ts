import type { MessageKind } from '../message/kinds'

/** Which entry a message makes, by the way it goes. */
const MESSAGE_ENTRIES = { text: { out: 'text-out', in: 'text-in' } } as const satisfies Record<MessageKind, { out: string, in: string }>
const CALL_ENTRIES = { out: 'call-out', in: 'call-in' } as const

type EntryOf<Entries extends Record<string, { out: string, in: string }>> = Entries[keyof Entries]['out' | 'in']

type Sent = (typeof MESSAGE_ENTRIES)[MessageKind]['out']

const SENT = Object.values(MESSAGE_ENTRIES).map(entry => entry.out) as [Sent, ...Sent[]]
const RECEIVED = Object.values(MESSAGE_ENTRIES).map(entry => entry.in)

/** What a timeline can hold in this version. Entries are added, never changed. */
export const ACTIVITY_KINDS = [
  ...SENT, ...RECEIVED, 'note', 'record-made', 'fields-changed', 'stage-changed', 'group-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed',
  CALL_ENTRIES.out, CALL_ENTRIES.in, 'task-made', 'task-done', 'task-again', 'task-changed', 'task-withdrawn', 'nothing-needed', 'put-back', 'assigned',
  'bulk-sent',
] as const
export type ActivityKind = typeof ACTIVITY_KINDS[number]

/**
 * The sides that something can come from, and the kinds of entry that come from each: all that counts as contact with the
 * person (common practice: in either direction).
 */
export const CONTACT = { ours: SENT, theirs: RECEIVED, call: Object.values(CALL_ENTRIES) } as const
export type Side = keyof typeof CONTACT

/** The kinds in which somebody says something in words of their own. */
export const SAID: readonly ActivityKind[] = [...SENT, ...RECEIVED, 'note', ...CONTACT.call]

export const messageEntry = <Kind extends MessageKind, Way extends 'out' | 'in'>(
  kind: Kind,
  way: Way,
): (typeof MESSAGE_ENTRIES)[Kind][Way] => MESSAGE_ENTRIES[kind][way]

export const isMessage = (kind: ActivityKind): kind is EntryOf<typeof MESSAGE_ENTRIES> =>
  sideOf(kind) === 'ours' || sideOf(kind) === 'theirs'

/** Which side an entry came from, for the rhythm. */
export function sideOf(kind: ActivityKind): Side | null {
  for (const side of Object.keys(CONTACT) as Side[]) if ((CONTACT[side] as readonly ActivityKind[]).includes(kind)) return side
  return null
}

/** Kinds that count as contact with the person. */
export function isContact(kind: ActivityKind): boolean {
  return sideOf(kind) !== null
}
