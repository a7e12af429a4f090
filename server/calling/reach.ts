import { eq, sql } from 'drizzle-orm'
import type { HoursWindow } from '~~/core/hours/week'
import { wishOf, type Wished } from '~~/core/hours/wish'
import { readPhone } from '~~/core/phone/read'
import { can } from '~~/shared/permissions'
import type { DialForm } from '~~/shared/schemas/calling'
import { ask, read } from '../db/door'
import { firm, numberState, phone, record } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import { joinContact } from '../reading/contact'
import { seesRecord } from '../reading/visible'
import type { SignedIn } from '../identity/sign-in'
import type { Place } from '../records/phones'

/** A number that may be called, with what decides whether now. */
export interface Reach {
  e164: string
  recordId: string | null
  place: Place
  wish: HoursWindow | null
  calls: string | null
  lastHeardAt: Date | null
}

const NOWHERE: Place = { zone: null, country: null, region: null }

/**
 * The number that is to be called: of a record, or as somebody typed it.
 *
 * @throws Problem 404, or 422 at the number
 */
export async function mustReach(asker: SignedIn, { phoneId, number }: Pick<DialForm, 'phoneId' | 'number'>): Promise<Reach> {
  if (phoneId) return ofRecord(asker, phoneId)
  if (number) return asTyped(asker, number)
  throw badInput({ phoneId: 'Choose a number to call.' })
}

async function ofRecord(asker: SignedIn, phoneId: string): Promise<Reach> {
  const [found] = await read(database => database
    .select({ e164: phone.e164, record, calls: numberState.calls, lastHeardAt: numberState.lastHeardAt })
    .from(phone).innerJoin(record, eq(record.id, phone.recordId)).leftJoin(numberState, eq(numberState.e164, phone.e164))
    .where(eq(phone.id, phoneId)))
  if (!found || !can(asker, 'record.see', found.record)) throw notFound('number')
  if (!found.e164) throw badInput({ phoneId: 'This number cannot be used, so nobody can be called on it. Correct it on the record.' })
  const { zone, country, region } = found.record
  return {
    e164: found.e164,
    recordId: found.record.id,
    place: { zone, country, region },
    wish: wishOf(found.record),
    calls: found.calls,
    lastHeardAt: found.lastHeardAt,
  }
}

/** Of whom it is, among those I may see, is whoever was last in contact. */
async function asTyped(asker: SignedIn, number: string): Promise<Reach> {
  const [{ country } = { country: 'US' }] = await read(database => database.select({ country: firm.country }).from(firm))
  const reading = readPhone(number, country)
  if (!reading.ok)
    throw badInput({
      number: 'This cannot be a telephone number. Write it with its area code, and with + and the country where it is abroad.',
    })
  const { e164 } = reading
  const { rows: [holder] } = await ask<Record<string, unknown> & { id: string } & Place & Wished>(sql`
    select r.id, r.zone, r.country, r.region, r.wish_from as "wishFrom", r.wish_to as "wishTo" from ${phone} p join ${record} r on r.id = p.record_id ${joinContact}
    where p.e164 = ${e164} and ${seesRecord(asker, 'r')}
      order by contact.at desc nulls last, r.id limit 1`)
  const [state] = await read(database =>
    database.select({ calls: numberState.calls, lastHeardAt: numberState.lastHeardAt }).from(numberState).where(eq(numberState.e164, e164)),
  )
  return {
    e164,
    recordId: holder?.id ?? null,
    place: holder ? { zone: holder.zone, country: holder.country, region: holder.region } : NOWHERE,
    wish: holder ? wishOf(holder) : null,
    calls: state?.calls ?? null,
    lastHeardAt: state?.lastHeardAt ?? null,
  }
}
