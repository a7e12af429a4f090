import { sql, type SQL } from 'drizzle-orm'
import { hasNumbers, holdsPeople, MODULE_FACTS } from '~~/shared/modules'
import type { Selection } from '~~/shared/schemas/list'
import { phone, record, recordPerson } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { chosenIn } from './list'

/**
 * Those that are chosen, as a query of `id` and `place`, their place in the list; of deals, jobs and the like the people on them,
 * and those that have a number of their own: each once.
 *
 * @throws Problem 422 for records that neither have numbers nor hold people
 */
export async function chosenPeople(asker: SignedIn, selection: Selection, now: Date): Promise<SQL> {
  const { module } = selection.list
  if (!hasNumbers(module) && !holdsPeople(module))
    throw badInput({ selection: `${MODULE_FACTS[module].many} have no numbers of their own. Choose people or companies.` })
  const { from, where, order } = await chosenIn(asker, selection, now)
  const own = sql`select r.id, row_number() over (order by ${order}) as place from ${from} where ${where}`
  if (!holdsPeople(module)) return own
  return sql`select x.id, min(held.place) as place from (${own}) held
    left join ${recordPerson} l on l.record_id = held.id
    join ${record} x on (x.id = l.person_id or (x.id = held.id and exists (
      select 1 from ${phone} p where p.record_id = held.id and p.e164 is not null))) and ${seesRecord(asker, 'x')}
    group by x.id`
}
