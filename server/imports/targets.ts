import type { ImportTarget } from '~~/core/import/targets'
import { importTargets } from '~~/shared/import'
import { CHOICE_OF_PIPELINE, type Module } from '~~/shared/modules'
import type { Pipeline } from '~~/shared/pipelines'
import { ownFields } from '../records/fields'
import { pipelinesOf } from '../records/pipelines'
import { allStages } from '../records/stages'

/** The pipelines among which a record of the module stands in one: a deal itself, the candidates of a job. */
export async function pipelinesToChoose(module: Module): Promise<Pipeline[]> {
  const held = CHOICE_OF_PIPELINE[module]
  return held ? pipelinesOf(held) : []
}

/** What columns of a file can become in a module of this firm. */
export const targetsOf = async (module: Module): Promise<ImportTarget[]> =>
  importTargets(module, { own: await ownFields(), stages: await allStages(module), pipelines: await pipelinesToChoose(module) })
