import { sayEffect } from '~~/core/effects/effects'
import { tagRecord } from '../records/tag'
import { unchanged, type EffectWork } from './effect'

interface Kept { tag: string }

/** The two directions of one thing. */
const tagging = (on: boolean, isSo: string): EffectWork<'add-tag' | 'remove-tag', null, Kept> => ({
  async facts() {
    return null
  },

  preview: (effect, _facts, { record }) => ({ words: sayEffect(effect), problem: record.tags.includes(effect.tag) === on ? isSo : null }),

  async perform({ tag }, _said, _facts, { asker, record, because }, now) {
    return await tagRecord(asker, record.id, tag, on, now, because) ? { state: 'done', kept: { tag } } : unchanged(isSo)
  },

  async undo({ tag }, { asker, record }, now) {
    await tagRecord(asker, record.id, tag, !on, now)
    return null
  },
})

export const addTag: EffectWork<'add-tag', null, Kept> = tagging(true, 'It has this tag already.')
export const removeTag: EffectWork<'remove-tag', null, Kept> = tagging(false, 'It does not have this tag.')
