import { array, boolean, object, string, type InferType } from 'yup'
import { PIPELINE_MODULES } from '../modules'
import { freshId, line } from './common'

export const MOST_STAGES = 20

export const ofPipelineModule = object({ module: string().oneOf(PIPELINE_MODULES).required() })

const stage = object({
  name: line(40).required('Give the stage a name, or take it away.'),
  /** What it was called, if it was there before. */
  was: string().max(40).nullable().default(null),
  over: boolean().default(false),
})

const different = (value: unknown[] | undefined) => new Set(value).size === value?.length

export const pipelineForm = object({
  id: freshId().required(),
  module: string().oneOf(PIPELINE_MODULES).required(),
  name: line(60).required('Give the pipeline a name.'),
  stages: array(stage.required()).min(2, 'A pipeline has at least two stages.').max(MOST_STAGES, `A pipeline has ${MOST_STAGES} stages at most.`).required()
    .test('different', 'Two stages have the same name.', value => different(value?.map(({ name }) => name?.toLowerCase())))
    .test('one-each', 'Two stages were the same one before.', value => different(value?.flatMap(({ was }) => was ?? [])))
    .test('open', 'Leave at least one stage in which it is not over.', value => value?.some(({ over }) => !over)),
})
export type PipelineForm = InferType<typeof pipelineForm>
