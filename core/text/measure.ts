import { septets } from './alphabet'

export type Encoding = 'GSM-7' | 'UCS-2'

export interface TextMeasure {
  encoding: Encoding
  /** Septets in GSM-7, UTF-16 code units in UCS-2. */
  units: number
  /** Short messages on the air; 0 for an empty text. */
  parts: number
  /** Units that one part holds: 160 or 70 alone, 153 or 67 when joined. */
  perPart: number
  /** Units still free in the last part. */
  room: number
}

/**
 * Units of one part, alone and joined. 140 octets of user data, less a header of 6 octets
 * with an 8-bit reference when parts are joined (3GPP TS 23.040, 9.2.3.24.1).
 */
export const CAPACITY = {
  'GSM-7': { single: 160, joined: 153 },
  'UCS-2': { single: 70, joined: 67 },
} as const

/** Most parts that can be joined: the header counts them in one octet (3GPP TS 23.040). */
export const MOST_PARTS = 255

/** Whether the pair of code units at `index` is one character outside of the basic plane. */
function isSurrogatePair(text: string, index: number): boolean {
  const high = text.charCodeAt(index)
  if (high < 0xD800 || high > 0xDBFF) return false
  const low = text.charCodeAt(index + 1)
  return low >= 0xDC00 && low <= 0xDFFF
}

/** Septets of the whole text, or -1 as soon as one character is outside of the alphabet. */
function countSeptets(text: string): number {
  let units = 0
  for (let i = 0; i < text.length; i++) {
    const cost = septets(text.charCodeAt(i))
    if (cost === 0) return -1
    units += cost
  }
  return units
}

function septetParts(text: string): { parts: number, used: number } {
  const { joined } = CAPACITY['GSM-7']
  let parts = 1
  let used = 0
  for (let i = 0; i < text.length; i++) {
    const cost = septets(text.charCodeAt(i))
    if (used + cost > joined) {
      parts++
      used = 0
    }
    used += cost
  }
  return { parts, used }
}

function ucs2Parts(text: string): { parts: number, used: number } {
  const { joined } = CAPACITY['UCS-2']
  let parts = 0
  let start = 0
  while (text.length - start > joined) {
    start += isSurrogatePair(text, start + joined - 1) ? joined - 1 : joined
    parts++
  }
  return { parts: parts + 1, used: text.length - start }
}

/**
 * How long a text is on the air, in the encoding a telephone would choose for it.
 * An escape pair or a surrogate pair is never cut: the whole character moves to the next part.
 *
 * @param text any string; lone surrogates count as one unit
 */
export function measureText(text: string): TextMeasure {
  const septetCount = countSeptets(text)
  const encoding: Encoding = septetCount < 0 ? 'UCS-2' : 'GSM-7'
  const units = septetCount < 0 ? text.length : septetCount
  const { single, joined } = CAPACITY[encoding]
  if (units <= single) return { encoding, units, parts: units === 0 ? 0 : 1, perPart: single, room: single - units }
  const { parts, used } = encoding === 'GSM-7' ? septetParts(text) : ucs2Parts(text)
  return { encoding, units, parts, perPart: joined, room: joined - used }
}
