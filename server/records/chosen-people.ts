import { sql, type SQL } from 'drizzle-orm'
import { hasNumbers, holdsPeople, MODULE_FACTS, MODULES } from '~~/shared/modules'
import type { Selection, Whom } from '~~/shared/schemas/list'
import { textArray } from '../db/instants'
import { phone, record, recordPerson } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { inGroup } from './groups/people'
import { chosenIn } from './list'

/**
 * Those that are chosen, or are in a group, as a query of `id` and `place`, their place in the list; of deals, jobs and the like
 * the people on them, and those that have a number of their own: each once.
 *
 * @throws Problem 422 where nobody is chosen, and for records that neither have numbers nor hold people
 */
export async function chosenPeople(asker: SignedIn, { selection, groupId }: Whom, now: Date): Promise<SQL> {
  if (groupId) return withThoseOn(asker, await inGroup(asker, groupId, now))
  if (!selection) throw badInput({ selection: 'Choose people first, in a list or a group.' })
  const { module } = selection.list
  if (!hasNumbers(module) && !holdsPeople(module))
    throw badInput({ selection: `${MODULE_FACTS[module].many} have no numbers of their own. Choose people or companies.` })
  const own = await inList(asker, selection, now)
  return holdsPeople(module) ? withThoseOn(asker, own) : own
}

async function inList(asker: SignedIn, selection: Selection, now: Date): Promise<SQL> {
  const { from, where, order } = await chosenIn(asker, selection, now)
  return sql`select r.id, row_number() over (order by ${order}) as place from ${from} where ${where}`
}

/** What nobody else is on. */
const BY_THEMSELVES = MODULES.filter(module => !holdsPeople(module))

/** What holds people counts itself only with a number of its own. */
const withThoseOn = (asker: SignedIn, held: SQL): SQL => sql`
  select x.id, min(held.place) as place from (${held}) held
    join ${record} h on h.id = held.id
    left join ${recordPerson} l on l.record_id = held.id
    join ${record} x on (x.id = l.person_id or (x.id = held.id and (
      h.module = any(${textArray(BY_THEMSELVES)}) or exists (select 1 from ${phone} p where p.record_id = held.id and p.e164 is not null))))
      and ${seesRecord(asker, 'x')}
    group by x.id`
