import { FOR_THE_HOUR } from '../message/hold'

/** What a call round is at: its people are handed out only while it is open. */
export const ROUND_STATES = ['open', 'paused', 'stopped'] as const
export type RoundState = typeof ROUND_STATES[number]

const ROUND_MOVES: Record<RoundState, readonly RoundState[]> = {
  open: ['paused', 'stopped'],
  paused: ['open', 'stopped'],
  stopped: ['open'],
}

/** Whether a round may go from one state to another; a stopped one can be taken up again. */
export const mayTurn = (from: RoundState, to: RoundState): boolean => ROUND_MOVES[from].includes(to)

/** Whoever was handed somebody and neither calls nor says anything for so long has gone away: others may have them. */
export const HOLD_MS = 30 * 60_000

export const PASS_REASONS = ['no-number', 'no-calls', ...FOR_THE_HOUR, 'called-lately'] as const
export type PassReason = typeof PASS_REASONS[number]

export const STANDINGS = ['waiting', 'held', 'called', 'passed', 'skipped'] as const

/** Where somebody stands in a round. Instants are epoch milliseconds. */
export interface Standing {
  state: typeof STANDINGS[number]
  /** The colleague who has them in hand, or has called or skipped them. */
  by: string | null
  heldUntil: number | null
  /** Why they were passed over when their turn was there. */
  reason: PassReason | null
  /** When their turn may come again; null if it may at any time. */
  notBefore: number | null
  /** Who is put back comes after all those of the turn before. */
  turn: number
}

export type RoundEvent
  = | { kind: 'hold', by: string, at: number }
    | { kind: 'call', by: string, at: number }
    | { kind: 'skip', by: string, at: number }
    /** Come back to them later, when the others have had their turn. */
    | { kind: 'later', by: string, at: number }
    /** Whoever has them goes away. */
    | { kind: 'let-go', by: string, at: number }
    /** Passed over: until a moment, or for good. */
    | { kind: 'pass', reason: PassReason, notBefore: number | null, at: number }
    /** Put back by hand. */
    | { kind: 'again', at: number }

export const newStanding = (): Standing => ({ state: 'waiting', by: null, heldUntil: null, reason: null, notBefore: null, turn: 0 })

/** Whether somebody's turn may come now. */
export function isDue({ state, heldUntil, notBefore }: Standing, at: number): boolean {
  if (state === 'held') return heldUntil! <= at
  return state === 'waiting' && (notBefore === null || notBefore <= at)
}

/**
 * Where somebody stands after an event.
 *
 * @returns null for what cannot happen to them now: a colleague was quicker, or it is done already
 */
export function withRoundEvent(before: Standing, event: RoundEvent): Standing | null {
  const free = { ...newStanding(), turn: before.turn }
  const inHand = before.state === 'held' && 'by' in event && before.by === event.by
  switch (event.kind) {
    case 'hold': return inHand || isDue(before, event.at) ? { ...free, state: 'held', by: event.by, heldUntil: event.at + HOLD_MS } : null
    case 'call': return inHand ? { ...free, state: 'called', by: event.by } : null
    case 'skip': return inHand ? { ...free, state: 'skipped', by: event.by } : null
    case 'later': return inHand ? { ...free, turn: before.turn + 1 } : null
    case 'let-go': return inHand ? free : null
    case 'pass': {
      const { reason, notBefore } = event
      return isDue(before, event.at) ? { ...free, state: notBefore === null ? 'passed' : 'waiting', reason, notBefore } : null
    }
    case 'again': return ['called', 'passed', 'skipped'].includes(before.state) ? { ...free, turn: before.turn + 1 } : null
  }
}
