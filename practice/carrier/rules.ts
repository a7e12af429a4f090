import { split } from 'split-sms'
import { LINES, PRICES, MOST_PARTS, countryOf } from './numbers'
import type { World } from './world'

/** A refusal as a carrier gives it: a status, a code that programs read, a sentence for people. */
export interface Refusal { status: number, code: string, detail: string }

export interface Wish { from: string, to: string, text: string, confirmsOptOut: boolean }

/** What a real carrier would refuse. */
export function refusalOf({ from, to, text, confirmsOptOut }: Wish, world: World): Refusal | null {
  const line = LINES.find(known => known.number === from)
  if (!line) return { status: 422, code: 'sender-unknown', detail: 'This account has no such number.' }
  if (!/^\+[1-9]\d{6,14}$/.test(to)) return { status: 422, code: 'recipient-unknown', detail: 'The recipient is not in E.164.' }
  if (countryOf(to) !== line.country) return { status: 422, code: 'country-not-allowed', detail: `Numbers of ${line.country} text within ${line.country} only.` }
  if (isLandline(to)) return { status: 422, code: 'recipient-not-mobile', detail: 'This number takes no texts.' }
  if (world.optedOut.has(to) && !confirmsOptOut) return { status: 422, code: 'recipient-opted-out', detail: 'This number has texted STOP.' }
  if (text === '') return { status: 422, code: 'bad-request', detail: 'The text is empty.' }
  if (split(text).parts.length > MOST_PARTS) return { status: 422, code: 'too-long', detail: `At most ${MOST_PARTS} parts.` }
  return null
}

export function priceOf(wish: Wish): { parts: number, price: { micros: number, currency: string } } {
  const parts = split(wish.text).parts.length
  const price = PRICES.find(known => known.country === countryOf(wish.to))!
  return { parts, price: { micros: price.microsPerPart * parts, currency: price.currency } }
}

/** Fiction's landlines of the United Kingdom; North American numbers do not tell. */
const isLandline = (number: string) => /^\+44(1174960|2079460)\d{3}$/.test(number)
