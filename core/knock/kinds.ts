/** What calls for action at once. Each has a file of its own in server/knocks/kinds, which says when. */
export const KNOCK_KINDS = ['question', 'second-missed-call', 'hot-answer', 'call-back-due', 'waits-too-long'] as const
export type KnockKind = typeof KNOCK_KINDS[number]

/** With whom it knocks, one after the other, until somebody takes it. */
export const KNOCK_STEPS = ['owner', 'stand-in', 'lead'] as const
export type KnockStep = typeof KNOCK_STEPS[number]
