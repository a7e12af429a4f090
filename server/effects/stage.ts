import { sayEffect } from '~~/core/effects/effects'
import { moveRecord } from '../records/move'
import { allStages } from '../records/stages'
import { Unfit, unchanged, type EffectWork } from './effect'

interface Kept { from: string | null, to: string }

const IS_THERE = 'It stands there already.'

export const stage: EffectWork<'stage', null, Kept> = {
  once: true,

  async check(effect, module) {
    const stages = await allStages(module)
    if (!stages.includes(effect.stage)) throw new Unfit({ stage: `There is no stage “${effect.stage}” here. Choose one of ${stages.join(', ')}.` })
    return effect
  },

  async facts() {
    return null
  },

  preview: (effect, _facts, { record }) => ({ words: sayEffect(effect), problem: record.stage === effect.stage ? IS_THERE : null }),

  async perform({ stage: to }, _said, _facts, { asker, record, because }, now) {
    const from = await moveRecord(asker, record.id, { stage: to, from: null }, now, because)
    return from === to ? unchanged(IS_THERE) : { state: 'done', kept: { from, to } }
  },

  async undo({ from, to }, { asker, record }, now) {
    if (from === null) return 'It stood in no stage before.'
    await moveRecord(asker, record.id, { stage: from, from: to }, now)
    return null
  },
}
