import { sql, type SQL } from 'drizzle-orm'
import { pipeline, stage } from '../db/schema'

/** Joins the stage `s` in which a record `r` stands, if it stands in one. */
export const joinStage = sql`left join ${stage} s on s.id = r.stage_id`

/** Whether what stands in a stage is over; where it stands in none it is not. */
export const isOver = (stageId: SQL): SQL => sql`coalesce((select st.over from ${stage} st where st.id = ${stageId}), false)`

export const nameOfStage = (stageId: SQL): SQL => sql`(select st.name from ${stage} st where st.id = ${stageId})`

/** Whether a record `r` can be in a stage at all: in those of its module, and a deal only in those of its pipeline. */
export const canBeIn = (stageId: SQL): SQL => sql`exists (
  select 1 from ${stage} st join ${pipeline} pl on pl.id = st.pipeline_id
  where st.id = ${stageId} and pl.holds = r.module and (r.module <> 'deal' or pl.id = r.pipeline_id))`
