import { asc, eq, type SQL } from 'drizzle-orm'
import type { Held } from '~~/shared/modules'
import type { Pipeline } from '~~/shared/pipelines'
import { read } from '../db/door'
import { pipeline, stage } from '../db/schema'
import { notFound } from '../http/problem'

/** The pipelines of leads, of deals, of a job's candidates: in order, with their stages. */
export const pipelinesOf = async (holds: Held): Promise<Pipeline[]> => readPipelines(eq(pipeline.holds, holds))

/** @throws Problem 404 if there is none by this id */
export async function pipelineById(id: string): Promise<Pipeline> {
  const [found] = await readPipelines(eq(pipeline.id, id))
  if (!found) throw notFound('pipeline')
  return found
}

async function readPipelines(where: SQL): Promise<Pipeline[]> {
  const rows = await read(database =>
    database
      .select({ pipeline, stage })
      .from(pipeline)
      .innerJoin(stage, eq(stage.pipelineId, pipeline.id))
      .where(where)
      .orderBy(asc(pipeline.position), asc(pipeline.id), asc(stage.position)),
  )
  const pipelines = new Map<string, Pipeline>()
  for (const { pipeline: { id, holds, name }, stage: { id: stageId, name: stageName, over } } of rows) {
    const one = pipelines.get(id) ?? { id, holds, name, stages: [] }
    pipelines.set(id, { ...one, stages: [...one.stages, { id: stageId, name: stageName, over }] })
  }
  return [...pipelines.values()]
}
