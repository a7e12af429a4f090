import { sql } from 'drizzle-orm'
import type { PassReason } from '~~/core/call/round'
import { record, roundPerson, type callRound } from '../../db/schema'
import { ask } from '../../db/door'
import { readHouse } from '../../hours/house'
import { JOIN_REACH, PERSON_COLUMNS, whyPassed, type PersonRow } from './facts'

type Round = Pick<typeof callRound.$inferSelect, 'id' | 'notWithinHours'>

/** How many of these people would be passed over now, by reason. */
export async function countPassed(people: PersonRow[], notWithinHours: number, now: Date): Promise<Partial<Record<PassReason, number>>> {
  const house = await readHouse(now)
  const passed: Partial<Record<PassReason, number>> = {}
  for (const person of people) {
    const why = whyPassed(person, house, notWithinHours, now)
    if (why) passed[why.reason] = (passed[why.reason] ?? 0) + 1
  }
  return passed
}

/** Of those whose turn is still to come: how many could not be called now, and why. */
export async function notNow({ id, notWithinHours }: Round, now: Date): Promise<Partial<Record<PassReason, number>>> {
  const { rows } = await ask<PersonRow>(sql`
    select ${PERSON_COLUMNS} from ${roundPerson} w join ${record} r on r.id = w.record_id ${JOIN_REACH}
    where w.round_id = ${id}::uuid and w.state = 'waiting'`)
  return countPassed(rows, notWithinHours, now)
}
