import { NATIONAL_LANGUAGES, NATIONAL_TABLES, readShift, type NationalLanguage, type Shift } from '../text/national'

/** Elements of a user data header by their identifier (3GPP TS 23.040, 9.2.3.24). */
const [JOINED_8_BIT, JOINED_16_BIT, SINGLE_SHIFT, LOCKING_SHIFT] = [0x00, 0x08, 0x24, 0x25]

/** To which text a part belongs, and as which of how many; the first is 1. */
export interface Joined { reference: number, part: number, of: number }

export interface Header { joined: Joined | null, shift: Shift | null }

/** A user data header in octets, its own length first; empty where there is nothing to say. */
export function writeHeader({ joined, shift }: Header): number[] {
  const elements: number[] = joined ? [JOINED_8_BIT, 3, joined.reference & 0xFF, joined.of, joined.part] : []
  if (shift) {
    const { language, single, locking } = readShift(shift)
    const { id } = NATIONAL_TABLES[language]
    if (single) elements.push(SINGLE_SHIFT, 1, id)
    if (locking) elements.push(LOCKING_SHIFT, 1, id)
  }
  return elements.length > 0 ? [elements.length, ...elements] : []
}

/**
 * Reads the header at the beginning of user data. Elements that it does not know are passed over, and one that is cut off ends it.
 *
 * @returns what it says, and where the text begins
 */
export function readHeader(octets: Uint8Array): Header & { length: number } {
  const length = Math.min((octets[0] ?? 0) + 1, octets.length)
  let joined: Joined | null = null
  let [single, locking] = [0, 0]
  for (let at = 1; at + 1 < length; at += 2 + octets[at + 1]!) {
    const values = octets.subarray(at + 2, Math.min(at + 2 + octets[at + 1]!, length))
    if (values.length < octets[at + 1]!) break
    if (octets[at] === JOINED_8_BIT && values.length === 3) joined = joinedOf(values[0]!, values[2]!, values[1]!)
    if (octets[at] === JOINED_16_BIT && values.length === 4) joined = joinedOf(values[0]! << 8 | values[1]!, values[3]!, values[2]!)
    if (octets[at] === SINGLE_SHIFT) single = values[0] ?? 0
    if (octets[at] === LOCKING_SHIFT) locking = values[0] ?? 0
  }
  return { joined, shift: shiftOf(single, locking), length }
}

/** A part that says it is none of its text, or more than all, is a text by itself (23.040, 9.2.3.24.1). */
const joinedOf = (reference: number, part: number, of: number): Joined | null =>
  part >= 1 && part <= of ? { reference, part, of } : null

const languageOf = (id: number): NationalLanguage | undefined => NATIONAL_LANGUAGES.find(language => NATIONAL_TABLES[language].id === id)

function shiftOf(single: number, locking: number): Shift | null {
  const language = languageOf(single || locking)
  if (!language || (single && locking && single !== locking)) return null
  return `${language}-${single && locking ? 'both' : single ? 'single' : 'locking'}`
}
