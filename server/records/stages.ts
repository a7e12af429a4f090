import { hasStages, type Module } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'
import { pipelinesOf } from './pipelines'

/** Every stage in which a record of the module can be, by the name one knows it by: of several pipelines, with the name of its own. */
export async function allStages(module: Module): Promise<Stage[]> {
  const pipelines = hasStages(module) ? await pipelinesOf(module) : []
  return pipelines.flatMap(({ name: of, stages }) =>
    stages.map(({ id, name, over }) => ({ id, name: pipelines.length > 1 ? `${name} (${of})` : name, over })),
  )
}

/** A deal's are those of its pipeline; those of other modules are the same for all. */
export async function stagesOf(module: Module, pipelineId: string | null): Promise<Stage[]> {
  const pipelines = hasStages(module) ? await pipelinesOf(module) : []
  const its = (one: Pipeline) => module !== 'deal' || one.id === pipelineId
  return pipelines.find(its)?.stages ?? []
}
