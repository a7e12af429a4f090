import { ACTIVITY_KINDS, CONTACT, type ActivityKind } from './kinds'

/** What a timeline can be narrowed to, in the words of whoever reads it. */
export const GROUPS = ['texts', 'calls', 'notes', 'tasks', 'changes'] as const
export type Group = typeof GROUPS[number]

const OTHERS = {
  'note': 'notes',
  'record-made': 'changes',
  'fields-changed': 'changes',
  'stage-changed': 'changes',
  'group-changed': 'changes',
  'put-on': 'changes',
  'moved-on': 'changes',
  'taken-off': 'changes',
  'consent-changed': 'changes',
  'task-made': 'tasks',
  'task-done': 'tasks',
  'task-again': 'tasks',
  'task-changed': 'tasks',
  'task-withdrawn': 'tasks',
  'nothing-needed': 'tasks',
  'put-back': 'tasks',
  'assigned': 'tasks',
  'bulk-sent': 'texts',
} as const satisfies Record<Exclude<ActivityKind, (typeof CONTACT)[keyof typeof CONTACT][number]>, Group>

/** The group that a kind of entry belongs to: every kind has one, or this does not compile. */
export function groupOf(kind: ActivityKind): Group {
  if (kind in OTHERS) return OTHERS[kind as keyof typeof OTHERS]
  return (CONTACT.call as readonly ActivityKind[]).includes(kind) ? 'calls' : 'texts'
}

export const kindsOf = (groups: readonly Group[]): ActivityKind[] => ACTIVITY_KINDS.filter(kind => groups.includes(groupOf(kind)))

/** The two sides of what is said: who wrote or called. */
export const DIRECTIONS = ['ours', 'theirs'] as const
export type Direction = typeof DIRECTIONS[number]

/** The kinds in which one side speaks. */
export const kindsFrom = (direction: Direction): ActivityKind[] =>
  direction === 'ours' ? [...CONTACT.ours, 'call-out'] : [...CONTACT.theirs, 'call-in']
