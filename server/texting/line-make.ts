import { asc } from 'drizzle-orm'
import { readPhone } from '~~/core/phone/read'
import type { LineChoices, SetUpLine } from '~~/shared/set-up'
import type { MakeLineForm } from '~~/shared/schemas/line'
import { carrierRegistered } from '../carriers/registry'
import type { Carrier, CarrierNumber } from '../carriers/port'
import { read, tx } from '../db/door'
import { line, team } from '../db/schema'
import { badInput } from '../http/problem'
import { note } from '../identity/audit'
import { colleagues } from '../identity/colleagues'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { listLines, mustEditLines } from './line-edit'
import { asksOf, mustCoverNumber } from './line-rent'
import { heedNumber } from './line-told'
import { askToBring, keepPorting } from './porting'

/** Whose a line can be, and which numbers a carrier has given us that are no line yet; null where it does not tell them. */
export async function lineChoices(asker: SignedIn, carrier: string): Promise<LineChoices> {
  mustEditLines(asker)
  const numbers = await numbersOf(carrier)
  const taken = new Set((await read(database => database.select({ e164: line.e164 }).from(line))).map(({ e164 }) => e164))
  return {
    numbers: numbers && numbers.filter(({ state }) => state !== 'ended').map(({ e164 }) => e164).filter(e164 => !taken.has(e164)),
    rents: numbers !== null,
    brings: mustKnow(carrier).rental?.bring !== undefined,
    teams: await read(database => database.select({ id: team.id, name: team.name }).from(team).orderBy(asc(team.name))),
    colleagues: await colleagues(),
  }
}

function mustKnow(carrier: string): Carrier {
  const known = carrierRegistered(carrier)
  if (!known) throw badInput({ carrier: 'There is no such carrier here. Choose one from the list.' })
  return known
}

/** @throws Problem 409 where the carrier cannot be asked at the moment */
async function numbersOf(carrier: string): Promise<CarrierNumber[] | null> {
  const known = mustKnow(carrier)
  return known.rental ? asksOf(known, rental => rental.numbers()) : null
}

/**
 * Makes a number a line, over which colleagues text and call from when it is there. It begins with few bulk texts a day.
 * One that is not ours yet is taken at its carrier first: of what is lost on the way back the number is ours all the same, and is
 * offered to be made a line.
 */
export async function makeLine(asker: SignedIn, { number, takes, brings, ...form }: MakeLineForm, now: Date): Promise<SetUpLine[]> {
  mustEditLines(asker)
  const home = await firmHome()
  const reading = readPhone(number, home.country)
  if (!reading.ok) throw badInput({ number: 'This is no telephone number. Write it with its country code, such as +1 503 555 0170.' })
  const { e164, country } = reading
  await mustBeFree(form, e164)
  // outside of the transaction: the network keeps nobody waiting
  if (brings) await askToBring(mustKnow(form.carrier), e164, brings)
  const given = takes ? await takeNumber(form.carrier, e164) : (await numbersOf(form.carrier))?.find(one => one.e164 === e164)
  if (!given && !brings && carrierRegistered(form.carrier)?.rental)
    throw badInput({ number: 'The carrier has not given you this number. Choose one from the list.' })
  await tx(async (database) => {
    if (await mustBeFree(form, e164)) return
    await database.insert(line).values({ ...form, e164, country, newSince: now, ...(brings || given?.state === 'ordered') && { state: 'ordered' } })
    if (brings) await keepPorting(form.id, brings, now)
    await note('line-made', asker.id, now, { lineId: form.id, e164, ...form, ...brings && { broughtFrom: brings.from } })
    if (given) await heedNumber(form.carrier, given, now)
  })
  return listLines(asker)
}

/** @returns whether it is made already */
async function mustBeFree({ id, name }: Pick<MakeLineForm, 'id' | 'name'>, e164: string): Promise<boolean> {
  const lines = await tx(database => database.select({ id: line.id, e164: line.e164, name: line.name, state: line.state }).from(line).for('update'))
  const same = lines.find(one => one.e164 === e164)
  if (same?.id === id) return true
  if (same) throw badInput({ number: same.state === 'ended' ? `${same.name} had this number. Take that line up again.` : `${same.name} has this number already.` })
  if (lines.some(one => one.name === name)) throw badInput({ name: 'Another line is called so. Colleagues could not tell them apart.' })
  return false
}

/** @throws Problem 409 where it cannot be paid, 422 where it is not to be had */
async function takeNumber(carrier: string, e164: string): Promise<CarrierNumber> {
  const known = mustKnow(carrier)
  if (!known.rental) throw badInput({ carrier: 'This carrier does not rent out numbers here. Get one from it, and add it.' })
  await mustCoverNumber(known, e164)
  const given = await asksOf(known, rental => rental.take(e164))
  if (!given) throw badInput({ number: 'Somebody else has taken this number meanwhile. Choose another one.' })
  return given
}
