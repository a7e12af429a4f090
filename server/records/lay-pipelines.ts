import { v7 as uuid } from 'uuid'
import type { Pipeline } from '~~/shared/pipelines'
import type { PipelineToLay } from '~~/shared/starting-sets'
import { tx } from '../db/door'
import { pipeline, stage } from '../db/schema'

/** Lays pipelines into a firm that has none yet, in this order. */
export async function layPipelines(all: PipelineToLay[]): Promise<Pipeline[]> {
  const laid = all.map(({ holds, name, stages, over = [] }): Pipeline => ({
    id: uuid(),
    holds,
    name,
    stages: stages.map(one => ({ id: uuid(), name: one, over: over.includes(one) })),
  }))
  await tx(async (database) => {
    await database.insert(pipeline).values(laid.map(({ id, holds, name }, position) => ({ id, holds, name, position })))
    await database
      .insert(stage)
      .values(laid.flatMap(({ id: pipelineId, stages }) => stages.map((one, position) => ({ ...one, pipelineId, position }))))
  })
  return laid
}
