import { sayEffect } from '~~/core/effects/effects'
import type { Stage } from '~~/shared/pipelines'
import { moveRecord } from '../records/move'
import { allStages } from '../records/stages'
import { Unfit, unchanged, type EffectWork } from './effect'

interface Kept { from: string | null, to: string }

const IS_THERE = 'It stands there already.'

const called = (stages: Stage[], stageId: string) => ({ stage: stages.find(({ id }) => id === stageId)?.name })

export const stage: EffectWork<'stage', Stage[], Kept> = {
  once: true,

  async check(effect, module) {
    const stages = await allStages(module)
    if (!stages.some(({ id }) => id === effect.stageId))
      throw new Unfit({ stageId: `There is no such stage here. Choose one of ${stages.map(({ name }) => name).join(', ')}.` })
    return effect
  },

  async describe(_effects, module) {
    const stages = await allStages(module)
    return effect => sayEffect(effect, called(stages, effect.stageId))
  },

  facts: (_effects, { record }) => allStages(record.module),

  preview: (effect, stages, { record }) => ({
    words: sayEffect(effect, called(stages, effect.stageId)),
    problem: record.stageId === effect.stageId ? IS_THERE : null,
  }),

  async perform({ stageId: to }, _said, _stages, { asker, record, because }, now) {
    const from = await moveRecord(asker, record.id, { stageId: to, from: null }, now, because)
    return from === to ? unchanged(IS_THERE) : { state: 'done', kept: { from, to } }
  },

  async undo({ from, to }, { asker, record }, now) {
    if (from === null) return 'It stood in no stage before.'
    await moveRecord(asker, record.id, { stageId: from, from: to }, now)
    return null
  },
}
