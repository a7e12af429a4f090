/**
 * What a line is: asked for at its carrier; in use; kept and paid, but silent; in use until its paid month is over; gone.
 */
export const LINE_STATES = ['ordered', 'active', 'paused', 'ending', 'ended'] as const
export type LineState = typeof LINE_STATES[number]

/** Of these it is texted and called from. */
export const WORKING: readonly LineState[] = ['active', 'ending']

/** What an admin can do with a line. */
export const LINE_STEPS = ['pause', 'go-on', 'end', 'keep', 'take-up'] as const
export type LineStep = typeof LINE_STEPS[number]

const FROM: Record<LineStep, readonly LineState[]> = {
  'pause': ['active'],
  'go-on': ['paused'],
  'end': ['ordered', 'active', 'paused'],
  'keep': ['ending'],
  'take-up': ['ended'],
}

export const stepsFrom = (state: LineState): LineStep[] => LINE_STEPS.filter(step => FROM[step].includes(state))

/** What a carrier that rents numbers out says of one of them. */
export const NUMBER_STATES = ['ordered', 'given', 'ending', 'ended'] as const
export type NumberState = typeof NUMBER_STATES[number]

/**
 * What a line is once its carrier has said what its number is. That it is silent is between us: the carrier knows nothing of it.
 *
 * @returns the state that it has then, which may be the one it had
 */
export function afterWord(state: LineState, told: NumberState): LineState {
  if (told === 'given') return state === 'paused' ? 'paused' : 'active'
  return told
}
