import { sayEffect, type Effect } from '~~/core/effects/effects'
import type { PersonModule } from '~~/shared/modules'
import { badInput } from '../http/problem'
import { Unfit } from './effect'
import { EFFECT_KINDS, ofKind, workOf } from './registry'

/**
 * A list of effects as it is kept, where all of it fits people of this module.
 *
 * @throws Problem 422 at `effects[2].stage` and the like
 */
export async function checkEffects(effects: Effect[], module: PersonModule): Promise<Effect[]> {
  const checked: Effect[] = []
  for (const [place, effect] of effects.entries()) {
    const work = workOf(effect.kind)
    if (work.once && checked.some(({ kind }) => kind === effect.kind))
      throw badInput({ [`effects[${place}]`]: 'It does this already. Once is enough.' })
    try {
      checked.push(work.check ? await work.check(effect, module) : effect)
    }
    catch (error) {
      throw error instanceof Unfit ? badInput(within(`effects[${place}]`, error)) : error
    }
  }
  return checked
}

/** What each effect of a list is, in a few words, before it happens to anybody. */
export async function describeEffects(effects: Effect[], module: PersonModule): Promise<(effect: Effect) => string> {
  const describing = new Map<string, (effect: Effect) => string>()
  for (const kind of EFFECT_KINDS) {
    const own = ofKind(effects, kind)
    const describe = own.length > 0 ? await workOf(kind).describe?.(own, module) : undefined
    if (describe) describing.set(kind, describe)
  }
  return effect => (describing.get(effect.kind) ?? sayEffect)(effect)
}

/** The fields that do not fit, by where the effect stands. */
export const within = (place: string, { fields }: Unfit): Record<string, string> =>
  Object.fromEntries(Object.entries(fields).map(([field, why]) => [`${place}.${field}`, why]))
