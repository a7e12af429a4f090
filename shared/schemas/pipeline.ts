import { array, boolean, object, string, type InferType } from 'yup'
import { HELD } from '../modules'
import { freshId, line } from './common'

export const MOST_STAGES = 20

export const ofHeld = object({ holds: string().oneOf(HELD).required() })

const stage = object({
  /** Made by the browser for a new one. One that is there keeps its id whatever it is called. */
  id: freshId().required(),
  name: line(40).required('Give the stage a name, or take it away.'),
  over: boolean().default(false),
})

const different = (value: unknown[] | undefined) => new Set(value).size === value?.length

export const pipelineForm = object({
  id: freshId().required(),
  holds: string().oneOf(HELD).required(),
  name: line(60).required('Give the pipeline a name.'),
  stages: array(stage.required())
    .min(2, 'A pipeline has at least two stages.')
    .max(MOST_STAGES, `A pipeline has ${MOST_STAGES} stages at most.`)
    .required()
    .test('different', 'Two stages have the same name.', value => different(value?.map(({ name }) => name?.toLowerCase())))
    .test('one-each', 'Two stages are the same one.', value => different(value?.map(({ id }) => id)))
    .test('open', 'Leave at least one stage in which it is not over.', value => value?.some(({ over }) => !over)),
})
export type PipelineForm = InferType<typeof pipelineForm>
