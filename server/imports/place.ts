import type { ImportedRow } from '~~/core/import/read-row'
import type { Module } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'

/** The stages of a module by the names that one knows them by, and the pipelines that its records choose from. */
export interface Places { stages: Stage[], pipelines: Pipeline[] }

/**
 * Where the record of a row stands: in the pipeline and the stage that the row names; else in the pipeline that has the stage,
 * or the first there is, at its first stage.
 */
export function placeOf(
  module: Module,
  { columns }: ImportedRow,
  { stages, pipelines }: Places,
): { pipelineId: string | null, stageId: string | null } {
  const named = pipelines.find(({ name }) => name === columns.pipeline)
  const wanted = stages.find(({ name }) => name === columns.stage)
  if (module !== 'deal') return { pipelineId: (named ?? pipelines[0])?.id ?? null, stageId: (wanted ?? stages[0])?.id ?? null }
  const its = ({ id, name }: Stage) => wanted ? id === wanted.id : name === columns.stage
  const pipeline = named ?? pipelines.find(one => one.stages.some(its)) ?? pipelines[0]
  return { pipelineId: pipeline?.id ?? null, stageId: (pipeline?.stages.find(its) ?? pipeline?.stages[0])?.id ?? null }
}
