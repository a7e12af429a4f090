import { countryOf, LINES } from './numbers'

/** A number that can be rented, and on what terms. */
export interface Offer {
  number: string
  country: string
  place: string
  does: ('text' | 'picture' | 'call')[]
  /** A month. */
  rent: { micros: number, currency: string }
  /** Once, with the first month. */
  setUp: { micros: number, currency: string }
  /** In how many days it is there: papers are looked at first where a country wants them. */
  days: number
}

interface Place { place: string, country: string, front: string, numbers: number[] }

/** Areas, and within them the numbers that are kept for fiction: 555 0100 to 0199, and in the United Kingdom 07700 900xxx. */
const tens = (from: number) => Array.from({ length: 10 }, (_, i) => from + i)
const PLACES: Place[] = [
  { place: 'Eugene, Oregon', country: 'US', front: '+1458555', numbers: tens(120) },
  { place: 'Tacoma, Washington', country: 'US', front: '+1253555', numbers: tens(140) },
  { place: 'Brooklyn Park, Minnesota', country: 'US', front: '+1763555', numbers: tens(110) },
  { place: 'Aurora, Colorado', country: 'US', front: '+1720555', numbers: tens(160) },
  { place: 'Toronto, Ontario', country: 'CA', front: '+1647555', numbers: tens(130) },
  { place: 'Moncton, New Brunswick', country: 'CA', front: '+1506555', numbers: tens(150) },
  { place: 'Mobile', country: 'GB', front: '+447700900', numbers: tens(700) },
]

const dollars = (micros: number) => ({ micros, currency: 'USD' })

/** Invented, of the size that such numbers cost. */
const TERMS: Record<string, Pick<Offer, 'does' | 'rent' | 'setUp' | 'days'>> = {
  US: { does: ['text', 'picture', 'call'], rent: dollars(1_150_000), setUp: dollars(0), days: 0 },
  CA: { does: ['text', 'picture', 'call'], rent: dollars(1_300_000), setUp: dollars(0), days: 0 },
  GB: { does: ['text', 'call'], rent: dollars(1_600_000), setUp: dollars(2_500_000), days: 3 },
}

export const termsIn = (country: string) => TERMS[country]!

/** From each place in turn, so that whoever wishes for nothing sees where there are any. */
const OFFERS: Offer[] = PLACES.flatMap(({ place, country, front, numbers }) =>
  numbers.map((n, turn) => ({ number: `${front}${String(n).padStart(front.length === 8 ? 4 : 3, '0')}`, country, place, turn, ...termsIn(country) })))
  .sort((a, b) => a.turn - b.turn)
  .map(({ turn: _turn, ...offer }) => offer)

const MOST = 20

/** What of it is wanted: a country, part of a place's name, digits in a row. */
export interface OfferWish { country: string, place: string, digits: string }

/** Up to 20 numbers that nobody has, as wished. */
export function offersFor({ country, place, digits }: OfferWish, isTaken: (number: string) => boolean): Offer[] {
  const wanted = place.trim().toLowerCase()
  return OFFERS
    .filter(offer => (!country || offer.country === country) && offer.place.toLowerCase().includes(wanted) && offer.number.includes(digits))
    .filter(({ number }) => !isTaken(number))
    .slice(0, MOST)
}

export const offerOf = (number: string): Offer | undefined => OFFERS.find(offer => offer.number === number)

/** The country of one of its numbers; what came from elsewhere says it by its area. */
export const countryOfOwn = (number: string): string =>
  (LINES.find(line => line.number === number) ?? offerOf(number))?.country ?? countryOf(number)!
