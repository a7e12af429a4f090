/** How a call is handed to a colleague: at once when they take it, or after the two have had a word. */
export const HANDING_WAYS = ['straight', 'after-a-word'] as const
export type HandingWay = typeof HANDING_WAYS[number]

/**
 * Where it stands.
 * - asked: it rings with the colleague, and whoever calls waits on hold
 * - together: both are on it, and whoever calls waits on hold
 * - handed: the colleague has it
 * - back: whoever handed it has it again
 * - over: the call ended first
 */
export const HANDING_STATES = ['asked', 'together', 'handed', 'back', 'over'] as const
export type HandingState = typeof HANDING_STATES[number]

/** What can happen to it, by the colleague, by whoever hands it, by the clock or by the call. */
export const HANDING_STEPS = ['take', 'refuse', 'give', 'take-back', 'run-out', 'call-ended'] as const
export type HandingStep = typeof HANDING_STEPS[number]

/** For so long it rings with a colleague. */
export const HANDING_RINGS_MS = 20_000

/** Where a step leads; null where it leads nowhere: what has come to its end stays there, whatever comes late or twice. */
export function afterStep(state: HandingState, way: HandingWay, step: HandingStep): HandingState | null {
  if (state !== 'asked' && state !== 'together') return null
  switch (step) {
    case 'take': return state === 'together' ? null : way === 'straight' ? 'handed' : 'together'
    case 'give': return state === 'together' ? 'handed' : null
    case 'run-out': return state === 'asked' ? 'back' : null
    case 'refuse':
    case 'take-back': return 'back'
    case 'call-ended': return 'over'
  }
}

/** Whose part each step is. */
export const STEP_OF: Record<HandingStep, 'them' | 'us' | 'nobody'> = { 'take': 'them', 'refuse': 'them', 'give': 'us', 'take-back': 'us', 'run-out': 'nobody', 'call-ended': 'nobody' }
