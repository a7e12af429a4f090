import { mayFollow, type Effect, type EffectKind, type EffectState } from '~~/core/effects/effects'
import type { EffectPreview, EffectSaid } from '~~/shared/effects'
import { savepoint } from '../db/door'
import { badInput, Problem } from '../http/problem'
import { within } from './check'
import { Unfit, type Occasion, type Performed } from './effect'
import { EFFECT_KINDS, ofKind, workOf } from './registry'

/** What all kinds must know of somebody for some effects, read once. */
export type EffectFacts = Map<EffectKind, unknown>

export async function factsFor(effects: Effect[], occasion: Occasion, now: Date): Promise<EffectFacts> {
  const facts: EffectFacts = new Map()
  for (const kind of EFFECT_KINDS) {
    const own = ofKind(effects, kind)
    if (own.length > 0) facts.set(kind, await workOf(kind).facts(own, occasion, now))
  }
  return facts
}

/** What an effect would do for somebody. */
export function previewOf(effect: Effect, position: number, facts: EffectFacts, occasion: Occasion, now: Date): EffectPreview {
  return {
    position,
    effect,
    text: null,
    due: null,
    field: null,
    problem: null,
    ...workOf(effect.kind).preview(effect, facts.get(effect.kind), occasion, now),
  }
}

/** What is said of an effect before it happens, by its place in the list. */
export interface Choice extends EffectSaid { position: number, leftOut: boolean }

/** What came of an effect, as it is stored. */
export interface Stored { words: string, state: EffectState, reason: string | null, kept: object }

const NOTHING_SAID: EffectSaid = { text: null, answers: {}, day: null, time: null }

/**
 * Lets effects happen, each in a savepoint of its own: one that fails stops no other, and says why.
 *
 * @param choices what was said of them
 * @param store keeps what came of each, as soon as it has happened
 * @throws Problem 422 at everything that is not said yet: then the transaction around is to do nothing at all
 */
export async function happen(
  previews: EffectPreview[],
  choices: Choice[],
  facts: EffectFacts,
  occasion: Occasion,
  now: Date,
  store: (preview: EffectPreview, came: Stored) => Promise<void>,
): Promise<void> {
  const unsaid: Record<string, string> = {}
  for (const preview of previews) {
    const came = await happenOne(
      preview,
      choices.find(({ position }) => position === preview.position),
      facts,
      occasion,
      now,
    )
    if (came instanceof Unfit) Object.assign(unsaid, within(`choices.${preview.position}`, came))
    else await store(preview, came)
  }
  if (Object.keys(unsaid).length > 0) throw badInput(unsaid)
}

async function happenOne(
  { effect, words }: EffectPreview,
  choice: Choice | undefined,
  facts: EffectFacts,
  occasion: Occasion,
  now: Date,
): Promise<Stored | Unfit> {
  if (choice?.leftOut) return { words, state: 'left-out', reason: null, kept: {} }
  try {
    const performed = await savepoint(() =>
      workOf(effect.kind).perform(effect, choice ?? NOTHING_SAID, facts.get(effect.kind), occasion, now),
    )
    return { words, ...stored(performed) }
  }
  catch (error) {
    if (error instanceof Unfit) return error
    if (!(error instanceof Problem)) throw error
    return { words, state: 'failed', reason: reasonOf(error), kept: {} }
  }
}

function stored(performed: Performed<object>): Omit<Stored, 'words'> & { words?: string } {
  const words = performed.words === undefined ? {} : { words: performed.words }
  return performed.state === 'done'
    ? { ...words, state: 'done', reason: null, kept: performed.kept }
    : { ...words, state: 'unchanged', reason: performed.reason, kept: {} }
}

const reasonOf = ({ details }: Problem): string => Object.values(details.fields ?? {})[0] ?? details.detail

/** Undoes what an effect did, if it did anything; gives where it stands then. */
export async function undo(
  effect: Effect,
  { state, kept }: Pick<Stored, 'state' | 'kept'>,
  occasion: Occasion,
  now: Date,
): Promise<Pick<Stored, 'state' | 'reason'> | null> {
  if (!mayFollow(state, 'taken-back')) return null
  const stays = await savepoint(() => workOf(effect.kind).undo(kept, occasion, now)).catch((error: unknown) => {
    if (error instanceof Problem) return error.details.detail
    throw error
  })
  return stays === null ? { state: 'taken-back', reason: null } : { state: 'stays', reason: stays }
}
