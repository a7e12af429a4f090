import type { Money } from '~~/core/numbers/money'
import type { NumberOffered } from '~~/shared/set-up'
import type { OffersQuery } from '~~/shared/schemas/line'
import type { Carrier, NumberRental } from '../carriers/port'
import { carrierRegistered } from '../carriers/registry'
import { read } from '../db/door'
import { line } from '../db/schema'
import { badInput, conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { coveredBy } from '../money/accounts'
import { sayMoney } from '~~/core/numbers/money'
import { mustEditLines } from './line-edit'

/**
 * Asks a carrier that rents numbers out.
 *
 * @throws Problem 409 where it cannot be asked at the moment
 */
export const asksOf = <T>({ title, rental }: Carrier, ask: (rental: NumberRental) => Promise<T>): Promise<T> =>
  ask(rental!).catch(() => {
    throw conflict('carrier-away', 'It does not answer', `${title} cannot be reached. Try again in a minute: what it has done already is not done twice.`)
  })

/** Numbers that a carrier has to offer, as wished. */
export async function offersOf(asker: SignedIn, { carrier, ...wish }: OffersQuery): Promise<NumberOffered[]> {
  mustEditLines(asker)
  const known = carrierRegistered(carrier)
  if (!known?.rental) throw badInput({ carrier: 'This carrier does not rent out numbers here. Get one from it, and add it.' })
  const offers = await asksOf(known, rental => rental.offers({ ...wish, digits: wish.digits.replace(/\D/g, '') }))
  const ours = new Set((await read(database => database.select({ e164: line.e164 }).from(line))).map(({ e164 }) => e164))
  return offers.filter(({ e164 }) => !ours.has(e164))
}

/** What a number costs at first: its first month, and what comes with it. */
const firstOf = ({ rent, setUp }: { rent: Money, setUp: Money }): Money => ({ currency: rent.currency, micros: rent.micros + setUp.micros })

/**
 * No number is taken that cannot be paid.
 *
 * @throws Problem 422 for one that is not to be had; 409 where what is there does not cover its first charge
 */
export async function mustCoverNumber(carrier: Carrier, e164: string): Promise<void> {
  const offer = (await asksOf(carrier, rental => rental.offers({ country: '', place: '', digits: e164.slice(1) }))).find(one => one.e164 === e164)
  // one that has ended a moment ago is offered to nobody, and costs us what it did
  const own = offer ? null : (await asksOf(carrier, rental => rental.numbers())).find(one => one.e164 === e164)
  const first = offer ? firstOf(offer) : own?.rent
  if (!first) throw badInput({ number: 'Somebody else has taken this number meanwhile. Choose another one.' })
  const there = await coveredBy(first)
  if (there !== null)
    throw conflict('no-balance', 'It cannot be paid', `It costs ${sayMoney(first)} to begin with, and ${sayMoney(there)} are there. Add to the balance first.`)
}
