import { eq, isNull, or, sql, type SQL } from 'drizzle-orm'
import { activity, disposition } from '../db/schema'
import type { StoredCall } from './stored'

/** The round in which a call was made. */
const roundOf = ({ activityId }: StoredCall): SQL =>
  sql`(select (a.data->>'roundId')::uuid from ${activity} a where a.id = ${activityId}::uuid)`

/** Whether a disposition is for such calls: some are for one line alone, or for one round. */
export const forSuchCalls = (call: StoredCall): SQL => sql`(${or(isNull(disposition.onlyLineId), eq(disposition.onlyLineId, call.lineId))!}
  and (${disposition.onlyRoundId} is null or ${disposition.onlyRoundId} = ${roundOf(call)}))`
