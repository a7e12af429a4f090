/** Kinds of jobs in the outbox. */
export const HAND_OVER = 'hand-over'
