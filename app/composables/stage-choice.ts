import { CHOICE_OF_PIPELINE, hasStages, type Held, type Module } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'
import type { RecordDetail } from '~~/shared/record'
import { api } from './api'

const pipelinesOf = (holds: Held) => api<Pipeline[]>('/api/pipelines', { query: { holds } })

/**
 * The pipelines and stages that a form of a record offers: a deal's stages are those of its pipeline, and follow it.
 *
 * @param chosen what the form holds
 */
export function useStageChoice(
  module: Module,
  record: RecordDetail | null,
  chosen: { pipelineId: Ref<string | null>, stageId: Ref<string | null> },
) {
  const { pipelineId, stageId } = chosen
  const pipelines = shallowRef<Pipeline[]>(record?.pipeline ? [record.pipeline] : [])
  const ownStages = shallowRef<Stage[]>(record?.stages ?? [])
  const stages = computed(() =>
    module === 'deal' ? (pipelines.value.find(({ id }) => id === pipelineId.value)?.stages ?? []) : ownStages.value,
  )
  watch(stages, (there) => {
    if (stageId.value !== null && there.length > 0 && !there.some(({ id }) => id === stageId.value)) stageId.value = there[0]!.id
  })
  onMounted(async () => {
    if (!record && hasStages(module)) ownStages.value = (await pipelinesOf(module).catch(() => []))[0]?.stages ?? []
    const held = CHOICE_OF_PIPELINE[module]
    if (!held) return
    pipelines.value = await pipelinesOf(held).catch(() => pipelines.value)
    pipelineId.value ??= pipelines.value[0]?.id ?? null
  })
  return { pipelines, stages }
}
