import { cut, isSayable } from './air'
import type { NumberBook } from './book'
import { MOST_PARTS, MOST_PICTURE_BYTES, MOST_PICTURES, PRICES, countryOf } from './numbers'
import { isPictureType } from './pictures'
import type { Tables } from './tables'
import type { World } from './world'

/** A refusal as a carrier gives it: a status, a code that programs read, a sentence for people. */
export interface Refusal { status: number, code: string, detail: string }

export interface Wish {
  from: string
  to: string
  text: string
  tables: Tables
  pictures: { type: string, base64: string }[]
  confirmsOptOut: boolean
}

/** What a real carrier would refuse. */
export function refusalOf({ from, to, text, tables, pictures, confirmsOptOut }: Wish, world: World, book: NumberBook): Refusal | null {
  if (!book.works(from)) return { status: 422, code: 'sender-unknown', detail: 'This account has no such number.' }
  if (!/^\+[1-9]\d{6,14}$/.test(to)) return { status: 422, code: 'recipient-unknown', detail: 'The recipient is not in E.164.' }
  const country = countryOf(from)
  if (countryOf(to) !== country)
    return { status: 422, code: 'country-not-allowed', detail: `Numbers of ${country} text within ${country} only.` }
  if (isLandline(to)) return { status: 422, code: 'recipient-not-mobile', detail: 'This number takes no texts.' }
  if (world.optedOut.has(to) && !confirmsOptOut) return { status: 422, code: 'recipient-opted-out', detail: 'This number has texted STOP.' }
  if (pictures.length > 0) return pictureRefusal(to, pictures)
  if (text === '') return { status: 422, code: 'bad-request', detail: 'The text is empty.' }
  if (!isSayable(text, tables) && (tables.single || tables.locking))
    return { status: 422, code: 'bad-request', detail: 'The text has characters that the tables do not have.' }
  if (cut(text, 0, tables).length > MOST_PARTS) return { status: 422, code: 'too-long', detail: `At most ${MOST_PARTS} parts.` }
  return null
}

function pictureRefusal(to: string, pictures: Wish['pictures']): Refusal | null {
  if (priceIn(to).microsPerPicture === null) return { status: 422, code: 'pictures-not-allowed', detail: 'No pictures go to this country.' }
  if (pictures.length > MOST_PICTURES) return { status: 422, code: 'too-many-pictures', detail: `At most ${MOST_PICTURES} pictures.` }
  if (pictures.some(({ type, base64 }) => !isPictureType(type) || base64.length > (MOST_PICTURE_BYTES * 4) / 3 + 4))
    return { status: 422, code: 'picture-not-taken', detail: `JPEG, PNG or GIF of ${MOST_PICTURE_BYTES} bytes at most.` }
  return null
}

const priceIn = (number: string) => PRICES.find(known => known.country === countryOf(number))!

export function priceOf(wish: Wish): { parts: number, price: { micros: number, currency: string } } {
  const price = priceIn(wish.to)
  if (wish.pictures.length > 0) return { parts: 1, price: { micros: price.microsPerPicture!, currency: price.currency } }
  const parts = cut(wish.text, 0, wish.tables).length
  return { parts, price: { micros: price.microsPerPart * parts, currency: price.currency } }
}

/** Fiction's landlines of the United Kingdom; North American numbers do not tell. */
const isLandline = (number: string) => /^\+44(1174960|2079460)\d{3}$/.test(number)
