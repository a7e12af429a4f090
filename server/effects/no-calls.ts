import { sayEffect } from '~~/core/effects/effects'
import { annulConsent, writeConsent } from '../consent/ledger'
import { numbersOf } from '../records/phones'
import { unchanged, type EffectWork } from './effect'

interface Kept { entryIds: string[] }

/** The person is not to be called: on none of the numbers that the record has, nor on the one on which it was said. */
export const noCalls: EffectWork<'no-calls', null, Kept> = {
  once: true,

  async facts() {
    return null
  },

  preview: effect => ({ words: sayEffect(effect) }),

  async perform(_effect, _said, _facts, { asker, record, remote }, now) {
    const entryIds: string[] = []
    for (const e164 of new Set([...(await numbersOf(record.id)), ...(remote ? [remote] : [])]))
      entryIds.push(
        await writeConsent({ e164, at: now, kind: 'refused', covers: 'calls', how: 'by-hand', words: null, colleagueId: asker.id }),
      )
    return entryIds.length > 0 ? { state: 'done', kept: { entryIds } } : unchanged('The record has no number that could be called.')
  },

  /** Whoever had refused before has refused still: only what was written then is annulled. */
  async undo({ entryIds }, { asker }, now) {
    for (const id of entryIds) await annulConsent(id, asker.id, now)
    return null
  },
}
