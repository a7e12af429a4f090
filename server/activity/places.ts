import { sql, type SQL } from 'drizzle-orm'
import { MATTER_MODULES } from '~~/shared/modules'
import { textArray } from '../db/instants'
import { record, recordPerson } from '../db/schema'
import { isOver } from '../reading/stages'

/**
 * Where an entry of these records shows: on each of them, on their companies, and on the deals, jobs and
 * cases that they are on and that are not over.
 *
 * @param holders the name of a query with `id`, `company_id` and `along_line_id` of the records
 * @returns rows of `record_id`, `via`, the record it came from, and `along`; a place may come more than once, first as
 *   what it is with
 */
export const placesOf = (holders: SQL): SQL => sql`
  select record_id, via, along from (
    select id as record_id, null::uuid as via, along_line_id as along from ${holders}
    union all select company_id, id, along_line_id from ${holders} where company_id is not null
    union all select matter.id, h.id, h.along_line_id from ${holders} h
      join ${recordPerson} l on l.person_id = h.id
      join ${record} matter on matter.id = l.record_id and not ${isOver(sql`matter.stage_id`)}
        and matter.module = any(${textArray(MATTER_MODULES)})
  ) place order by along nulls first, via nulls first`
