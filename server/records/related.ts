import { sql } from 'drizzle-orm'
import { DAY_FIELD } from '~~/shared/fields'
import type { Asker } from '~~/shared/permissions'
import type { PersonOn, Related } from '~~/shared/record'
import { read } from '../db/door'
import { record, recordPerson } from '../db/schema'
import { seesRecord } from '../reading/visible'
import type { StoredRecord } from './one'
import { joinStage, nameOfStage } from '../reading/stages'

/** Most that a record page names of a kind; lists show the rest. */
const MOST = sql.raw('60')
const mine = (asker: Asker) => seesRecord(asker, 'r')

/** The people of a company, or on a deal, a job, a case or something with a day, by name. */
export async function peopleOf(asker: Asker, { id, module }: StoredRecord): Promise<PersonOn[]> {
  const [from, stage] = module === 'company'
    ? [sql`${record} r where r.company_id = ${id}::uuid and r.module in ('lead', 'candidate', 'client')`, sql`null`]
    : [sql`${recordPerson} l join ${record} r on r.id = l.person_id where l.record_id = ${id}::uuid`, nameOfStage(sql`l.stage_id`)]
  const { rows } = await read(database => database.execute<PersonOn & Record<string, unknown>>(sql`
    select r.id, r.name, r.title, r.module, ${stage} as stage from ${from} and ${mine(asker)} order by r.name collate "und-x-icu", r.id
      limit ${MOST}`))
  return rows
}

/**
 * What hangs on a record: the matters and the dated things that a person is on, that belong to a company,
 * or that are about a deal, a job or a case. What is open comes first, by its day.
 */
export async function relatedTo(asker: Asker, { id, module }: StoredRecord): Promise<Related[]> {
  const { rows } = await read(database => database.execute<Related & Record<string, unknown>>(sql`
    select r.id, r.module, r.name, s.name as stage, coalesce(s.over, false) as over, r.fields ->> ${DAY_FIELD} as day,
      r.fields ->> 'time' as time, ${nameOfStage(sql`l.stage_id`)} as standing
    from ${record} r ${joinStage} left join ${recordPerson} l on l.record_id = r.id and l.person_id = ${id}::uuid
    where r.module not in ('lead', 'candidate', 'client', 'company') and ${mine(asker)} and r.id in (
      ${module === 'company'
        ? sql`select c.id from ${record} c where c.company_id = ${id}::uuid`
        : sql`select p.record_id from ${recordPerson} p where p.person_id = ${id}::uuid union select a.id from ${record} a
          where a.about_id = ${id}::uuid`}
    )
    order by coalesce(s.over, false), day nulls last, time nulls last, r.made_at desc limit ${MOST}`))
  return rows
}
