import type { Effect, EffectKind, EffectOf, EffectState } from '~~/core/effects/effects'
import type { EffectPreview, EffectSaid } from '~~/shared/effects'
import type { PersonModule } from '~~/shared/modules'
import type { SignedIn } from '../identity/sign-in'
import type { StoredRecord } from '../records/one'

/** To whom effects happen, and because of what. */
export interface Occasion {
  asker: SignedIn
  record: StoredRecord
  /** The number with which it happened, and over which of our lines; null where it was without any. */
  remote: string | null
  lineId: string | null
  /** What set it off: kept with every entry. */
  because: { callId?: string }
}

/** What of a preview depends on the kind; the rest is put together around it. */
export type Shown = Partial<Omit<EffectPreview, 'position' | 'effect'>> & { words: string }

/** What came of an effect. */
export type Performed<Kept> = { /** Other words than before, where something was said of it. */ words?: string } & (
  | { state: Extract<EffectState, 'done'>, kept: Kept }
  | { state: Extract<EffectState, 'unchanged'>, reason: string }
)

export const unchanged = (reason: string) => ({ state: 'unchanged', reason } as const)

/**
 * One kind of effect. Its methods are called in this order: `check` when somebody sets it up, `facts`, `preview` and
 * `perform` when it happens to somebody, `undo` when that is taken back.
 *
 * @template Facts what it must know of somebody, read once for all effects of its kind
 * @template Kept what it needs to be undone: stored as JSON
 */
export interface EffectWork<K extends EffectKind, Facts, Kept extends object> {
  /** Twice in one list it would do the same again. */
  once?: boolean

  /**
   * The effect as it is kept, where it fits people of this module.
   *
   * @throws Unfit at what does not
   */
  check?(effect: EffectOf<K>, module: PersonModule): Promise<Effect>

  /** What it is called while it happens to nobody yet. */
  describe?(effects: EffectOf<K>[], module: PersonModule): Promise<(effect: EffectOf<K>) => string>

  facts(effects: EffectOf<K>[], occasion: Occasion, now: Date): Promise<Facts>

  preview(effect: EffectOf<K>, facts: Facts, occasion: Occasion, now: Date): Shown

  /**
   * Does it, by the same use case that a person would call.
   *
   * @throws Unfit at what is not said yet, and then nothing at all is done; Problem where it cannot be done
   */
  perform(effect: EffectOf<K>, said: EffectSaid, facts: Facts, occasion: Occasion, now: Date): Promise<Performed<Kept>>

  /**
   * Undoes what it did, and nothing that somebody has done since.
   *
   * @returns null when it is undone; else why it stays
   * @throws Problem where it stays because a use case refuses
   */
  undo(kept: Kept, occasion: Occasion, now: Date): Promise<string | null>
}

/** What does not fit, or is not said yet, by the field of the effect or of what was said of it. */
export class Unfit extends Error {
  constructor(readonly fields: Record<string, string>) {
    super(Object.values(fields)[0])
  }
}
