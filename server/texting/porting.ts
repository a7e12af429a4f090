import { and, eq } from 'drizzle-orm'
import type { PortingForm } from '~~/shared/schemas/line'
import type { SetUpLine } from '~~/shared/set-up'
import { carrierRegistered } from '../carriers/registry'
import type { Carrier, CarrierEvent } from '../carriers/port'
import { tx } from '../db/door'
import { line, numberPorting } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { listLines, mustEditLines } from './line-edit'
import { asksOf } from './line-rent'

/**
 * Asks a carrier to bring a number over that another one has. Asked again it is the same.
 *
 * @throws Problem 422 where it cannot, 409 where it does not answer
 */
export async function askToBring(carrier: Carrier, e164: string, { from, account, wishedDay }: PortingForm): Promise<void> {
  if (!carrier.rental?.bring)
    throw badInput({ carrier: 'This carrier brings no numbers over by itself. Ask it to, and add the number as a line once it is there.' })
  const asked = await asksOf(carrier, rental => rental.bring!(e164, { from, account, wishedDay }))
  if (!asked) throw badInput({ number: `${carrier.title} cannot bring this number over. Look whether it is written right, and whether it is yours.` })
}

export async function keepPorting(lineId: string, form: PortingForm, now: Date): Promise<void> {
  const values = { ...form, state: 'asked' as const, day: null, words: '', askedAt: now }
  await tx(database => database.insert(numberPorting).values({ lineId, ...values })
    .onConflictDoUpdate({ target: numberPorting.lineId, set: values }))
}

/**
 * Asks once more, with what was wrong put right.
 *
 * @throws Problem 409 for one that was not sent back
 */
export async function bringAgain(asker: SignedIn, id: string, form: PortingForm, now: Date): Promise<SetUpLine[]> {
  mustEditLines(asker)
  const before = await mustBeSentBack(id)
  await askToBring(carrierRegistered(before.carrier)!, before.e164, form)
  await tx(async () => {
    await mustBeSentBack(id)
    await keepPorting(id, form, now)
    await note('line-porting-asked', asker.id, now, { lineId: id, name: before.name, broughtFrom: form.from })
  })
  return listLines(asker)
}

async function mustBeSentBack(id: string) {
  const [found] = await tx(database => database.select({ line, state: numberPorting.state }).from(line)
    .innerJoin(numberPorting, eq(numberPorting.lineId, line.id)).where(eq(line.id, id)).for('update', { of: line }))
  if (!found) throw notFound('line')
  if (found.line.state !== 'ordered' || found.state !== 'sent-back')
    throw conflict('not-now', 'It is another one by now', `${found.line.name} was changed meanwhile by a colleague or its carrier. Look at it as it is.`)
  return found.line
}

/**
 * Heeds how far a number is that is being brought over; nothing of what was said before it was asked for last.
 *
 * @returns false for a number of which no line is made yet, so that this is to be told again
 */
export async function heedPorting(carrier: string, event: Extract<CarrierEvent, { kind: 'porting' }>, now: Date): Promise<boolean> {
  const { e164, word, day, words, at } = event
  return tx(async (database) => {
    const [found] = await database
      .select({ id: line.id, name: line.name, state: line.state, askedAt: numberPorting.askedAt, is: numberPorting.state })
      .from(line).innerJoin(numberPorting, eq(numberPorting.lineId, line.id))
      .where(and(eq(line.carrier, carrier), eq(line.e164, e164))).for('update', { of: line })
    if (!found) return false
    if (found.state !== 'ordered' || at < found.askedAt || found.is === word) return true
    await database.update(numberPorting).set({ state: word, day, words }).where(eq(numberPorting.lineId, found.id))
    await note('line-porting-told', null, now, { lineId: found.id, name: found.name, answer: word, ...day && { day } })
    announce({ kind: 'lines' }, 'line.edit', [{}])
    return true
  })
}
