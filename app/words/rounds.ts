import { PASS_REASONS, type PassReason, type RoundState, type Standing } from '~~/core/call/round'
import type { RoundOrder } from '~~/shared/rounds'

export const STANDING_WORDS: Record<Standing['state'], string> = {
  waiting: 'waiting',
  held: 'in hand',
  called: 'called',
  passed: 'passed over',
  skipped: 'skipped',
}

/** "12 ‹in their night›". */
export const PASS_WORDS: Record<PassReason, string> = {
  'no-number': 'without a number that can be called',
  'no-calls': 'not to be called',
  'night': 'in their night',
  'closed-day': 'on a day on which nobody there is reached',
  'place-hours': 'outside of the hours in which people there are reached',
  'wish': 'it is outside of the hours in which they want to be reached',
  'zone-unknown': 'nobody knows what time it is there',
  'called-lately': 'called a short while ago',
}

/** "12 in their night, 3 not to be called"; nothing of nobody. */
export const sayPassed = (passed: Partial<Record<PassReason, number>>): string =>
  PASS_REASONS.filter(reason => passed[reason]).map(reason => `${passed[reason]!.toLocaleString('en-US')} ${PASS_WORDS[reason]}`).join(', ')

export const ROUND_WORDS: Record<RoundState, string> = { open: 'open', paused: 'paused', stopped: 'stopped' }

export const ORDER_WORDS: Record<RoundOrder, string> = {
  'list': 'As the list stands',
  'local-time': 'Whose day ends soonest first',
  'last-contact': 'Longest not spoken with first',
}

/** The pauses that can be chosen between a disposition and the next call, in seconds; null: a person begins it. */
export const PAUSES: readonly (number | null)[] = [null, 0, 5, 15, 30]
/** In the middle of a sentence. */
export const sayPause = (seconds: number | null): string =>
  seconds === null ? 'when D is pressed' : seconds === 0 ? 'at once' : `by itself after ${seconds} seconds`
