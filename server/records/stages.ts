import { sql, type SQL } from 'drizzle-orm'
import { hasStages, type Module } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'
import { pipeline, stage } from '../db/schema'
import { pipelinesOf } from './pipelines'

/** Joins the stage `s` in which a record `r` stands, if it stands in one. */
export const joinStage = sql`left join ${stage} s on s.id = r.stage_id`

/** Whether what stands in a stage is over; where it stands in none it is not. */
export const isOver = (stageId: SQL): SQL => sql`coalesce((select st.over from ${stage} st where st.id = ${stageId}), false)`

export const nameOfStage = (stageId: SQL): SQL => sql`(select st.name from ${stage} st where st.id = ${stageId})`

/** By what stages are sorted: as they are gone through, not by their names. */
export const placeOfStage = (stageId: SQL): SQL => sql`
  (select pl.position * 1000 + st.position from ${stage} st join ${pipeline} pl on pl.id = st.pipeline_id where st.id = ${stageId})`

/** Whether a record `r` can be in a stage at all: in those of its module, and a deal only in those of its pipeline. */
export const canBeIn = (stageId: SQL): SQL => sql`exists (
  select 1 from ${stage} st join ${pipeline} pl on pl.id = st.pipeline_id
  where st.id = ${stageId} and pl.holds = r.module and (r.module <> 'deal' or pl.id = r.pipeline_id))`

/** Every stage in which a record of the module can be, by the name one knows it by: of several pipelines, with the name of its own. */
export async function allStages(module: Module): Promise<Stage[]> {
  const pipelines = hasStages(module) ? await pipelinesOf(module) : []
  return pipelines.flatMap(({ name: of, stages }) => stages.map(({ id, name, over }) => ({ id, name: pipelines.length > 1 ? `${name} (${of})` : name, over })))
}

/** A deal's are those of its pipeline; those of other modules are the same for all. */
export async function stagesOf(module: Module, pipelineId: string | null): Promise<Stage[]> {
  const pipelines = hasStages(module) ? await pipelinesOf(module) : []
  const its = (one: Pipeline) => module !== 'deal' || one.id === pipelineId
  return pipelines.find(its)?.stages ?? []
}
