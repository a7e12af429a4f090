import { sayEffect } from '~~/core/effects/effects'
import { giveNumberBack, markNotTheirs } from '../records/wrong-number'
import { unchanged, type EffectWork } from './effect'

interface Kept { phoneIds: string[] }

/** The number with which it happened is no number of this person. */
export const wrongNumber: EffectWork<'wrong-number', null, Kept> = {
  once: true,

  async facts() {
    return null
  },

  preview: effect => ({ words: sayEffect(effect) }),

  async perform(_effect, _said, _facts, { asker, record, remote, because }, now) {
    const phoneIds = remote ? await markNotTheirs(asker, record.id, remote, now, because) : []
    return phoneIds.length > 0 ? { state: 'done', kept: { phoneIds } } : unchanged('The record does not have this number any more.')
  },

  async undo({ phoneIds }, { asker, record }, now) {
    return await giveNumberBack(asker, record.id, phoneIds, now) ? null : 'The number has been changed or taken off since.'
  },
}
