/** How a call is transferred to a colleague: blind, at once when they take it, or attended, after the two have talked. */
export const TRANSFER_WAYS = ['blind', 'attended'] as const
export type TransferWay = typeof TRANSFER_WAYS[number]

/**
 * Where it stands.
 * - asked: it rings with the colleague, and whoever calls waits on hold
 * - together: both are on it, and whoever calls waits on hold
 * - transferred: the colleague has it
 * - back: whoever transferred it has it again
 * - over: the call ended first
 */
export const TRANSFER_STATES = ['asked', 'together', 'transferred', 'back', 'over'] as const
export type TransferState = typeof TRANSFER_STATES[number]

/** What can happen to it, by the colleague, by whoever transfers it, by the clock or by the call. */
export const TRANSFER_STEPS = ['take', 'refuse', 'give', 'take-back', 'run-out', 'call-ended'] as const
export type TransferStep = typeof TRANSFER_STEPS[number]

/** For so long it rings with a colleague. */
export const TRANSFER_RINGS_MS = 20_000

/** Where a step leads; null where it leads nowhere: what has come to its end stays there, whatever comes late or twice. */
export function afterStep(state: TransferState, way: TransferWay, step: TransferStep): TransferState | null {
  if (state !== 'asked' && state !== 'together') return null
  switch (step) {
    case 'take': return state === 'together' ? null : way === 'blind' ? 'transferred' : 'together'
    case 'give': return state === 'together' ? 'transferred' : null
    case 'run-out': return state === 'asked' ? 'back' : null
    case 'refuse':
    case 'take-back': return 'back'
    case 'call-ended': return 'over'
  }
}

/** Whose part each step is. */
export const STEP_OF: Record<TransferStep, 'them' | 'us' | 'nobody'> = {
  'take': 'them',
  'refuse': 'them',
  'give': 'us',
  'take-back': 'us',
  'run-out': 'nobody',
  'call-ended': 'nobody',
}
