/** What a bulk text is at. It is written while its people are gathered; only what was checked can be started. */
export const BULK_TEXT_STATES = ['draft', 'checking', 'checked', 'running', 'paused', 'stopped', 'done'] as const
export type BulkTextState = typeof BULK_TEXT_STATES[number]

export type BulkTextStep = 'write' | 'check' | 'start' | 'pause' | 'go-on' | 'stop'

/** What people may do with it, from where to where. */
const STEPS: Record<BulkTextStep, { from: BulkTextState[], to: BulkTextState }> = {
  'write': { from: ['draft', 'checking', 'checked'], to: 'draft' },
  'check': { from: ['draft', 'checked'], to: 'checking' },
  'start': { from: ['checked'], to: 'running' },
  'pause': { from: ['running'], to: 'paused' },
  'go-on': { from: ['paused', 'stopped'], to: 'running' },
  'stop': { from: ['running', 'paused'], to: 'stopped' },
}

/** The state that follows; null for what cannot be done now. */
export const afterStep = (state: BulkTextState, step: BulkTextStep): BulkTextState | null =>
  STEPS[step].from.includes(state) ? STEPS[step].to : null

/** How its pace has changed by itself, or by hand: it waits for answers to be worked off, goes on, or goes by another number of them. */
export const PACE_CHANGES = ['waits', 'goes-on', 'set'] as const
export type PaceChange = typeof PACE_CHANGES[number]

/**
 * Where somebody stands in a bulk text: not looked at yet; can be texted; cannot, for a reason; taken out by hand; held back by
 * chance, to see what the text makes of it; their text is on its way or gone, and the text itself says what became of it;
 * refused at the last moment, for a reason.
 */
export const BULK_STANDINGS = ['chosen', 'ready', 'left-out', 'taken-out', 'held-out', 'texted', 'refused'] as const
export type BulkStanding = typeof BULK_STANDINGS[number]
