import { DEFAULT_SEPTETS, septetsUnder, type SeptetTable } from './alphabet'
import { readShift, shiftsOf, type NationalLanguage, type Shift } from './national'

export const ENCODINGS = ['GSM-7', 'UCS-2'] as const
export type Encoding = typeof ENCODINGS[number]

/** How a text is said on the air. */
export interface Coding {
  encoding: Encoding
  /** The national tables in use; null for the default alphabet and for UCS-2. */
  shift: Shift | null
}

export interface TextMeasure extends Coding {
  /** Septets in GSM-7, UTF-16 code units in UCS-2. */
  units: number
  /** Short messages on the air; 0 for an empty text. */
  parts: number
  /** Units that one part holds: 160 or 70 alone, 153 or 67 when joined; less where a header names a language. */
  perPart: number
  /** Units still free in the last part. */
  room: number
}

/** Octets of user data in one part (3GPP TS 23.040). */
const OCTETS = 140
/** The header's own length; the element that joins parts, with an 8-bit reference (3GPP TS 23.040, 9.2.3.24.1); one that names a table. */
const [LENGTH_OCTETS, JOIN_OCTETS, TABLE_OCTETS] = [1, 5, 3]

/** Units of one part, alone and joined. */
export interface Capacity { single: number, joined: number }

const septetCapacity = (tables: number): Capacity => ({
  single: Math.floor((OCTETS - (tables === 0 ? 0 : LENGTH_OCTETS + tables * TABLE_OCTETS)) * 8 / 7),
  joined: Math.floor((OCTETS - LENGTH_OCTETS - JOIN_OCTETS - tables * TABLE_OCTETS) * 8 / 7),
})

export const CAPACITY = {
  'GSM-7': septetCapacity(0),
  'UCS-2': { single: OCTETS / 2, joined: (OCTETS - LENGTH_OCTETS - JOIN_OCTETS) / 2 },
} as const
/** By how many tables the header names. */
const SHIFTED = [septetCapacity(0), septetCapacity(1), septetCapacity(2)]

export function capacityOf({ encoding, shift }: Coding): Capacity {
  if (!shift) return CAPACITY[encoding]
  const { single, locking } = readShift(shift)
  return SHIFTED[Number(single) + Number(locking)]!
}

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
function countSeptets(text: string, table: SeptetTable): number {
  let units = 0
  for (let i = 0; i < text.length; i++) {
    const cost = table[text.charCodeAt(i)]!
    if (cost === 0) return -1
    units += cost
  }
  return units
}

function septetParts(text: string, table: SeptetTable, joined: number): { parts: number, used: number } {
  let parts = 1
  let used = 0
  for (let i = 0; i < text.length; i++) {
    const cost = table[text.charCodeAt(i)]!
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

/** The text in septets, or null where it holds a character that the alphabet does not have. */
function inSeptets(text: string, shift: Shift | null): TextMeasure | null {
  const table = shift ? septetsUnder(shift) : DEFAULT_SEPTETS
  const units = countSeptets(text, table)
  if (units < 0) return null
  // objects are written out: this runs over every text of everybody, and copying their parts takes longer than counting
  const { single, joined } = shift ? capacityOf({ encoding: 'GSM-7', shift }) : CAPACITY['GSM-7']
  if (units <= single) return { encoding: 'GSM-7', shift, units, parts: units === 0 ? 0 : 1, perPart: single, room: single - units }
  const { parts, used } = septetParts(text, table, joined)
  return { encoding: 'GSM-7', shift, units, parts, perPart: joined, room: joined - used }
}

function inUcs2(text: string): TextMeasure {
  const { single, joined } = CAPACITY['UCS-2']
  const units = text.length
  if (units <= single) return { encoding: 'UCS-2', shift: null, units, parts: 1, perPart: single, room: single - units }
  const { parts, used } = ucs2Parts(text)
  return { encoding: 'UCS-2', shift: null, units, parts, perPart: joined, room: joined - used }
}

/**
 * How long a text is on the air, in the cheapest coding that says all of it: the one with the fewest parts,
 * and of those with as many the default alphabet, which every telephone knows, before one that a header names.
 * An escape pair or a surrogate pair is never cut: the whole character moves to the next part.
 *
 * @param text any string; lone surrogates count as one unit
 * @param languages whose national tables the line's carrier knows
 */
export function measureText(text: string, languages: readonly NationalLanguage[] = []): TextMeasure {
  const plain = inSeptets(text, null)
  if (languages.length === 0) return plain ?? inUcs2(text)
  if (plain && plain.parts <= 1) return plain
  const ways = [plain, ...languages.flatMap(shiftsOf).map(shift => inSeptets(text, shift)), inUcs2(text)]
  return ways.filter(way => way !== null).reduce((cheapest, way) => way.parts < cheapest.parts ? way : cheapest)
}
