/** How far a number is that is brought over: asked for, sent back by the carrier that has it, or agreed with a day. Then it is there. */
export const PORTING_STATES = ['asked', 'sent-back', 'agreed'] as const
export type PortingState = typeof PORTING_STATES[number]

/** What a carrier can say of a number that is being brought over. */
export type PortingWord = Exclude<PortingState, 'asked'>

/** A carrier that has a number answers within so many days; after that somebody asks it (common practice). */
export const ANSWERS_WITHIN_DAYS = 5
