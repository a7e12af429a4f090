import { asc } from 'drizzle-orm'
import { readPhone } from '~~/core/phone/read'
import type { LineChoices, SetUpLine } from '~~/shared/set-up'
import { can } from '~~/shared/permissions'
import type { MakeLineForm } from '~~/shared/schemas/line'
import { carrierRegistered } from '../carriers/registry'
import type { CarrierNumber } from '../carriers/port'
import { read, tx } from '../db/door'
import { line, team } from '../db/schema'
import { badInput, conflict, notAllowed } from '../http/problem'
import { note } from '../identity/audit'
import { colleagues } from '../identity/colleagues'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { listLines } from './line-edit'

/** Whose a line can be, and which numbers a carrier has given us that are no line yet; null where it does not tell them. */
export async function lineChoices(asker: SignedIn, carrier: string): Promise<LineChoices> {
  mustEdit(asker)
  const numbers = await numbersOf(carrier)
  const taken = new Set((await read(database => database.select({ e164: line.e164 }).from(line))).map(({ e164 }) => e164))
  return {
    numbers: numbers && numbers.map(({ e164 }) => e164).filter(e164 => !taken.has(e164)),
    teams: await read(database => database.select({ id: team.id, name: team.name }).from(team).orderBy(asc(team.name))),
    colleagues: await colleagues(),
  }
}

/** @throws Problem 409 where the carrier cannot be asked at the moment */
async function numbersOf(carrier: string): Promise<CarrierNumber[] | null> {
  const known = carrierRegistered(carrier)
  if (!known) throw badInput({ carrier: 'There is no such carrier here. Choose one from the list.' })
  if (!known.numbers) return null
  return known.numbers().catch(() => {
    throw conflict('carrier-away', 'It does not answer', `${known.title} cannot be reached, and so does not tell which numbers are yours. Try again in a minute.`)
  })
}

/** Makes a number of ours a line, over which colleagues text and call from now on. It begins with few bulk texts a day. */
export async function makeLine(asker: SignedIn, { number, ...form }: MakeLineForm, now: Date): Promise<SetUpLine[]> {
  mustEdit(asker)
  // outside of the transaction: the network keeps nobody waiting
  const given = await numbersOf(form.carrier)
  const home = await firmHome()
  const reading = readPhone(number, home.country)
  if (!reading.ok) throw badInput({ number: 'This is no telephone number. Write it with its country code, such as +1 503 555 0170.' })
  const { e164, country } = reading
  if (given && !given.some(one => one.e164 === e164)) throw badInput({ number: 'The carrier has not given you this number. Choose one from the list.' })
  await tx(async (database) => {
    const lines = await database.select({ id: line.id, e164: line.e164, name: line.name }).from(line).for('update')
    const same = lines.find(one => one.e164 === e164)
    if (same?.id === form.id) return
    if (same) throw badInput({ number: `${same.name} has this number already.` })
    if (lines.some(({ name }) => name === form.name)) throw badInput({ name: 'Another line is called so. Colleagues could not tell them apart.' })
    await database.insert(line).values({ ...form, e164, country, newSince: now })
    await note('line-made', asker.id, now, { lineId: form.id, e164, ...form })
  })
  return listLines(asker)
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'line.edit', {})) throw notAllowed('set up lines; an admin does')
}
