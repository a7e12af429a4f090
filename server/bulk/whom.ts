import { sql, type SQL } from 'drizzle-orm'
import type { BulkWhom, ThoseOfBulk, ThoseOfRound, WhoAsk } from '~~/shared/schemas/bulk-text'
import { uuidArray } from '../db/instants'
import { bulkPerson, call, disposition, record, roundPerson } from '../db/schema'
import { mustHoldRound } from '../calling/rounds/one'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { chosenPeople } from '../records/chosen-people'
import { mustSeeBulk } from './one'

/** To whom a bulk text goes, as a query of `id` and `place`: out of a list, a group, another bulk text or a call round, or as an answer. */
export async function peopleFor(asker: SignedIn, { ofBulk, ofRound, whoAsk, ...whom }: BulkWhom, now: Date): Promise<SQL> {
  if (ofBulk) return peopleOfBulk(asker, ofBulk)
  if (ofRound) return peopleOfRound(asker, ofRound)
  if (whoAsk) return peopleWhoAsk(asker, whoAsk)
  return chosenPeople(asker, whom, now)
}

/** Which of its people `p` are meant. */
export const which = ({ bulkId, standing, reason, lately, answered }: ThoseOfBulk): SQL => sql.join([
  sql`p.bulk_id = ${bulkId}::uuid`,
  ...standing ? [sql`p.standing = ${standing}`] : [],
  ...reason ? [sql`p.reason = ${reason}`] : [],
  ...lately ? [sql`p.lately`] : [],
  ...answered === 'yes' ? [sql`p.standing = 'texted' and p.answered_at is not null`] : [],
  // whoever did not get it has not left it unanswered
  ...answered === 'no' ? [sql`p.standing = 'texted' and p.answered_at is null`] : [],
], sql` and `)

export async function peopleOfBulk(asker: SignedIn, those: ThoseOfBulk): Promise<SQL> {
  await mustSeeBulk(asker, those.bulkId)
  return sql`select p.record_id as id, p.position::bigint as place from ${bulkPerson} p
    join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')} where ${which(those)}`
}

async function peopleWhoAsk(asker: SignedIn, { bulkId, recordIds }: WhoAsk): Promise<SQL> {
  await mustSeeBulk(asker, bulkId)
  return sql`select p.record_id as id, p.position::bigint as place from ${bulkPerson} p
    join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    where p.bulk_id = ${bulkId}::uuid and p.record_id = any(${uuidArray(recordIds)}) and p.standing = 'texted'`
}

/** Those of a round who were reached, or those who were not though their turn had come. */
async function peopleOfRound(asker: SignedIn, { roundId, reached }: ThoseOfRound): Promise<SQL> {
  await mustHoldRound(asker, roundId)
  const isReached = sql`coalesce(d.family = 'reached', false)`
  return sql`select p.record_id as id, p.position::bigint as place from ${roundPerson} p
    join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    left join ${call} c on c.id = p.call_id left join ${disposition} d on d.id = c.disposition_id
    where p.round_id = ${roundId}::uuid and ${reached ? isReached : sql`p.state in ('called', 'passed', 'skipped') and not ${isReached}`}`
}
