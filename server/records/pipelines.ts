import { asc, eq } from 'drizzle-orm'
import type { PipelineModule } from '~~/shared/modules'
import type { Pipeline } from '~~/shared/pipelines'
import { tx } from '../db/door'
import { pipeline } from '../db/schema'
import { notFound } from '../http/problem'

const shownPipeline = ({ id, module, name, stages, over }: typeof pipeline.$inferSelect): Pipeline => ({ id, module, name, stages, over })

/** A module's pipelines, in order. */
export async function pipelinesOf(module: PipelineModule): Promise<Pipeline[]> {
  return (await tx(database => database.select().from(pipeline).where(eq(pipeline.module, module)).orderBy(asc(pipeline.position)))).map(shownPipeline)
}

/** @throws Problem 404 if there is none by this id */
export async function pipelineById(id: string): Promise<Pipeline> {
  const [found] = await tx(database => database.select().from(pipeline).where(eq(pipeline.id, id)))
  if (!found) throw notFound('pipeline')
  return shownPipeline(found)
}
