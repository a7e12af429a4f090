import { KNOCK_STEPS, type KnockStep } from './kinds'

/** Whom each step would add, by their ids. */
export type Candidates = Record<KnockStep, readonly string[]>

/**
 * Where a knock goes that nobody has taken in time: to the next step that adds anybody with whom it does not knock yet.
 *
 * @returns null where there is nobody left
 */
export function nextStep(step: KnockStep, knocksAt: readonly string[], candidates: Candidates): { step: KnockStep, whom: string[] } | null {
  for (const next of KNOCK_STEPS.slice(KNOCK_STEPS.indexOf(step) + 1)) {
    const whom = candidates[next].filter(id => !knocksAt.includes(id))
    if (whom.length > 0) return { step: next, whom }
  }
  return null
}
