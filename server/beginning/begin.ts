import { count, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { zoneRules } from '~~/core/hours/zones'
import { COUNTRIES } from '~~/core/places/countries'
import type { BeginForm, Beginning } from '~~/shared/schemas/begin'
import { carrierRegistered } from '../carriers/registry'
import type { CarrierNumber } from '../carriers/port'
import { PRACTICE } from '../carriers/practice'
import { heedNumber } from '../texting/line-told'
import { read, tx } from '../db/door'
import { beginKey, colleague, firm, line, team, teamMember } from '../db/schema'
import { isDuplicate } from '../db/failures'
import { badInput, conflict, Problem } from '../http/problem'
import { note } from '../identity/audit'
import { hashPassword } from '../identity/password'
import { beginWithPracticeMoney } from '../money/accounts'
import { layStartingSet } from './starting-set'
import { freshToken, signInAs, tokenHash, type From, type Tokens } from '../identity/sign-in'

/** As long as there is no firm, whoever has the key that a start has printed may make it. */
export async function offerBeginning(now: Date): Promise<string | null> {
  const key = freshToken()
  return tx(async (database) => {
    if (await isBegun()) return null
    await database.insert(beginKey).values({ keyHash: tokenHash(key), madeAt: now })
    return key
  })
}

export async function readBeginning(): Promise<Beginning> {
  return { open: !await isBegun(), practice: carrierRegistered(PRACTICE) !== undefined, countries: COUNTRIES }
}

/**
 * Makes the firm, its first team and its first admin, who is signed in.
 *
 * @throws Problem 403 for a wrong key, 409 once there is a firm, 422 at the field
 */
export async function begin({ key, password, practice, ...form }: BeginForm, from: From, now: Date): Promise<Tokens> {
  await mustHaveKey(key)
  if (!COUNTRIES.includes(form.country)) throw badInput({ country: 'Choose a country from the list.' })
  if (!zoneRules(form.zone)) throw badInput({ zone: `“${form.zone}” is not a time zone. Write one such as America/Denver.` })
  // outside of the transaction: neither the network nor a hash keeps others waiting
  const number = practice ? await practiceNumber(form.country) : null
  const passwordHash = await hashPassword(password)
  const adminId = await make(form, passwordHash, number, now)
  return signInAs(adminId, from, now)
}

async function make(
  { firm: name, country, zone, name: person, mail, set }: Omit<BeginForm, 'key' | 'password' | 'practice'>,
  passwordHash: string,
  number: CarrierNumber | null,
  now: Date,
): Promise<string> {
  const [adminId, teamId] = [uuid(), uuid()]
  try {
    await tx(async (database) => {
      await database.insert(firm).values({ name, country, textingOn: false })
      await database.insert(team).values({ id: teamId, name: 'Everybody' })
      await database
        .insert(colleague)
        .values({ id: adminId, name: person, firstName: person.split(' ')[0]!, mail, passwordHash, role: 'admin', title: 'Admin', zone })
      await database.insert(teamMember).values({ teamId, colleagueId: adminId })
      if (number) await database.insert(line).values({ id: uuid(), e164: number.e164, country: number.country, name: 'First line', teamId, carrier: PRACTICE, newSince: now })
      if (number) await heedNumber(PRACTICE, number, now)
      if (number) await beginWithPracticeMoney(adminId, now)
      await layStartingSet(set)
      await database.delete(beginKey)
      await note('firm-made', adminId, now, { name, country, set, practice: number !== null })
    })
  }
  catch (error) {
    if (isDuplicate(error, 'firm_pkey')) throw alreadyBegun()
    throw error
  }
  return adminId
}

/** A number of the practice carrier in the firm's own country, or else any. */
async function practiceNumber(country: string): Promise<CarrierNumber> {
  const given = await carrierRegistered(PRACTICE)?.rental?.numbers().catch(() => []) ?? []
  const numbers = given.filter(({ state }) => state === 'given')
  const number = numbers.find(one => one.country === country) ?? numbers[0]
  if (!number)
    throw badInput({ practice: 'The practice carrier does not answer, or is not there. Try again in a moment, or begin without it.' })
  return number
}

async function mustHaveKey(key: string): Promise<void> {
  if (await isBegun()) throw alreadyBegun()
  const [known] = await read(database => database.select().from(beginKey).where(eq(beginKey.keyHash, tokenHash(key))))
  if (!known)
    throw new Problem(
      403,
      'wrong-key',
      'Not this key',
      'This address is not the one that the start of Plauder has printed. Open that one, or start Plauder again for a new one.',
    )
}

async function isBegun(): Promise<boolean> {
  const [firms] = await read(database => database.select({ there: count() }).from(firm))
  return firms!.there > 0
}

const alreadyBegun = () =>
  conflict('begun', 'Already begun', 'Somebody has begun already. Sign in, or ask whoever runs Plauder here for an account.')
