import { and, asc, eq } from 'drizzle-orm'
import { readPhone } from '~~/core/phone/read'
import type { HowICall } from '~~/shared/calling'
import type { HowICallForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { colleague, firm, line, ownPhone } from '../db/schema'
import { badInput } from '../http/problem'
import { note } from '../identity/audit'
import { setCallsWith } from '../identity/colleagues'
import type { SignedIn } from '../identity/sign-in'

/** With what I call, and my own telephones. */
export async function readHowICall(asker: SignedIn): Promise<HowICall> {
  return tx(async (database) => {
    const [mine] = await database.select({ callsWith: colleague.callsWith }).from(colleague).where(eq(colleague.id, asker.id))
    const phones = await database
      .select({ e164: ownPhone.e164, label: ownPhone.label })
      .from(ownPhone)
      .where(eq(ownPhone.colleagueId, asker.id))
      .orderBy(asc(ownPhone.position))
    return { callsWith: mine!.callsWith, phones }
  })
}

/** @throws Problem 422 at a number that cannot be one, or that is a line of ours */
export async function saveHowICall(asker: SignedIn, { callsWith, phones }: HowICallForm, now: Date): Promise<HowICall> {
  return tx(async (database) => {
    const [{ country } = { country: 'US' }] = await database.select({ country: firm.country }).from(firm)
    const lines = new Set((await database.select({ e164: line.e164 }).from(line)).map(({ e164 }) => e164))
    const given = phones.map(({ number, label }, place) => {
      const reading = readPhone(number, country)
      if (!reading.ok) throw badInput({ [`phones[${place}].number`]: 'This cannot be a telephone number. Write it with its area code.' })
      if (lines.has(reading.e164))
        throw badInput({ [`phones[${place}].number`]: 'This is a line of the firm. Write the number of a telephone that you have by you.' })
      return { colleagueId: asker.id, e164: reading.e164, label, position: place }
    })
    const twice = given.findIndex((one, place) => given.slice(0, place).some(({ e164 }) => e164 === one.e164))
    if (twice >= 0) throw badInput({ [`phones[${twice}].number`]: 'This number is there already.' })
    if (callsWith === 'own-phones' && given.length === 0) throw badInput({ callsWith: 'Add a telephone first: it is what rings.' })
    await setCallsWith(asker.id, callsWith)
    await database.delete(ownPhone).where(eq(ownPhone.colleagueId, asker.id))
    if (given.length > 0) await database.insert(ownPhone).values(given)
    await note('own-phones-changed', asker.id, now, { callsWith, phones: given.length })
    return readHowICall(asker)
  })
}

/** My telephones that ring before the other one does; none where I call in the browser. */
export async function phonesThatRing(colleagueId: string): Promise<string[]> {
  const rows = await read(database =>
    database
      .select({ e164: ownPhone.e164 })
      .from(ownPhone)
      .innerJoin(colleague, eq(colleague.id, ownPhone.colleagueId))
      .where(and(eq(ownPhone.colleagueId, colleagueId), eq(colleague.callsWith, 'own-phones')))
      .orderBy(asc(ownPhone.position)),
  )
  return rows.map(({ e164 }) => e164)
}
