import { sql } from 'drizzle-orm'
import { isE164 } from '~~/core/phone/e164'
import { PERSON_MODULES, isPersonModule } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import type { Alike } from '~~/shared/record'
import type { AlikeQuery } from '~~/shared/schemas/record'
import { ask } from '../db/door'
import { textArray } from '../db/instants'
import { phone, record, team } from '../db/schema'
import { joinCompany } from '../reading/company'
import { seesRecord } from '../reading/visible'

const MOST = 5

/**
 * Who may be the same as somebody who is being written down: by a number, by the mail address, by the name and the place
 * (common practice). Of records of others only their team is said, and only of numbers: whom to ask, and nothing of whom.
 */
export async function readAlike(asker: Asker, { module, numbers, mail, name, city, except }: AlikeQuery): Promise<Alike> {
  const asked = numbers.split(',').filter(isE164).slice(0, 10)
  const kin = isPersonModule(module) ? PERSON_MODULES : [module]
  const other = sql`r.id is distinct from ${except}::uuid`
  const { rows } = await ask<Alike['records'][number] & Record<string, unknown>>(sql`
    with found as (
      select r.id, 1 as place, 'number' as by, p.e164 as number from ${phone} p join ${record} r on r.id = p.record_id
        where p.e164 = any(${textArray(asked)})
      union all select r.id, 2, 'mail', null from ${record} r where ${mail} <> '' and lower(r.mail) = lower(${mail})
      union all select r.id, 3, 'name', null from ${record} r
        where ${name} <> '' and lower(r.name) = lower(${name}) and r.module = any(${textArray(kin)})
          and (${city} = '' or r.city is null or lower(r.city) = lower(${city}))
    ), first as (select distinct on (found.id) found.* from found order by found.id, found.place)
    select r.id, r.name, r.module, first.by, first.number, coalesce(company.name, r.city) as about
    from first join ${record} r on r.id = first.id and ${other} and ${seesRecord(asker, 'r')} ${joinCompany(asker)}
    order by first.place, r.name limit ${MOST}`)
  const { rows: elsewhere } = await ask<Alike['elsewhere'][number] & Record<string, unknown>>(sql`
    select distinct p.e164 as number, t.name as team from ${phone} p
    join ${record} r on r.id = p.record_id and ${other} and not ${seesRecord(asker, 'r')} join ${team} t on t.id = r.team_id
    where p.e164 = any(${textArray(asked)}) order by 1, 2 limit ${MOST}`)
  return { records: rows, elsewhere }
}
