import { eq, sql, type SQL } from 'drizzle-orm'
import { MODULE_FACTS, MODULES, type Module } from '~~/shared/modules'
import { tx } from '../db/door'
import { pipeline } from '../db/schema'
import { pipelinesOf } from './pipelines'

/** The stages in which a record can be, in their order, and in which of them it is over. */
export interface Stages { stages: string[], over: string[] }

const OVER = MODULES.flatMap(module => (MODULE_FACTS[module].over ?? []).map(stage => `${module} ${stage}`))

/** The same in SQL: whether a record `r` is over once it is in a stage. */
export const overIn = (stage: SQL): SQL => sql`coalesce(
  (select ${stage} = any(pl.over) from ${pipeline} pl where pl.id = r.pipeline_id and r.module = 'deal'),
  r.module || ' ' || ${stage} in (${sql.join(OVER.map(one => sql`${one}`), sql`, `)}), false)`

/** Whether a record `r` can be in a stage at all: deals only in those of their pipeline. */
export const canBeIn = (stage: SQL): SQL => sql`(r.module <> 'deal' or exists (select 1 from ${pipeline} pl where pl.id = r.pipeline_id and ${stage} = any(pl.stages)))`

/** Every stage in which a record of the module can be; those of all pipelines, of a deal. */
export async function allStages(module: Module): Promise<string[]> {
  if (module !== 'deal') return MODULE_FACTS[module].stages
  return [...new Set((await pipelinesOf(module)).flatMap(({ stages }) => stages))]
}

/** A deal's are those of its pipeline; those of other modules are the same for all. */
export async function stagesOf(module: Module, pipelineId: string | null): Promise<Stages> {
  if (module !== 'deal') return { stages: MODULE_FACTS[module].stages, over: MODULE_FACTS[module].over ?? [] }
  const [found] = pipelineId ? await tx(database => database.select().from(pipeline).where(eq(pipeline.id, pipelineId))) : []
  return found ?? { stages: [], over: [] }
}
