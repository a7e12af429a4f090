import { capacityOf, type Coding } from '../text/measure'
import { fromSeptets, toSeptets } from '../text/septets'
import { readHeader, writeHeader, type Header, type Joined } from './header'

/** Values of data_coding (SMPP 3.4, 5.2.19): the SMS centre's own alphabet, which is GSM's (common practice), Latin-1 and UCS-2. */
export const DATA_CODING = { 'GSM-7': 0x00, 'Latin-1': 0x03, 'UCS-2': 0x08 } as const

/** One short message: its header, and the characters in octets as SMPP carries them, a septet in an octet of its own. */
export interface Part { header: number[], octets: number[] }

/**
 * Cuts a text into short messages, as `measureText` counts them: no character is cut in two.
 *
 * @param coding as measured
 * @param reference what the parts of this text have in common, 0 to 255
 * @returns at least one
 * @throws RangeError where the coding cannot say the text
 */
export function cutText(text: string, coding: Coding, reference: number): Part[] {
  const [{ single, joined }, characters] = [capacityOf(coding), charactersOf(text, coding)]
  const total = characters.reduce((sum, { length }) => sum + length, 0)
  const perUnit = coding.encoding === 'UCS-2' ? 2 : 1
  const header = (place: Joined | null) => writeHeader({ joined: place, shift: coding.shift })
  if (total <= single * perUnit) return [{ header: header(null), octets: characters.flat() }]
  const parts: number[][] = [[]]
  for (const octets of characters) {
    if (parts.at(-1)!.length + octets.length > joined * perUnit) parts.push([])
    parts.at(-1)!.push(...octets)
  }
  return parts.map((octets, i) => ({ header: header({ reference, part: i + 1, of: parts.length }), octets }))
}

/** A whole text that is carried in one piece, however long: no part is named, only the tables in which it is said. */
export const wholeText = (text: string, coding: Coding): Part =>
  ({ header: writeHeader({ joined: null, shift: coding.shift }), octets: charactersOf(text, coding).flat() })

function charactersOf(text: string, { encoding, shift }: Coding): number[][] {
  if (encoding === 'UCS-2') return [...text].map(utf16)
  const septets = toSeptets(text, shift)
  if (!septets) throw new RangeError('The text has a character that these tables do not have.')
  return septets
}

const utf16 = (character: string): number[] =>
  Array.from({ length: character.length }, (_, i) => character.charCodeAt(i)).flatMap(unit => [unit >> 8, unit & 0xFF])

/**
 * What a short message says, and to which text it belongs.
 *
 * @param octets as they came
 * @param dataCoding in which characters; what is not known is read as Latin-1
 * @param hasHeader whether they begin with a header
 */
export function readPart(octets: Uint8Array, dataCoding: number, hasHeader: boolean): Header & { text: string } {
  const header = hasHeader ? readHeader(octets) : { joined: null, shift: null, length: 0 }
  return { joined: header.joined, shift: header.shift, text: decode(octets.subarray(header.length), dataCoding, header) }
}

function decode(octets: Uint8Array, dataCoding: number, { shift }: Header): string {
  switch (dataCoding & 0x0F) {
    case DATA_CODING['GSM-7']: return fromSeptets(octets, shift)
    case DATA_CODING['UCS-2']: return new TextDecoder('utf-16be').decode(octets)
    default: return String.fromCharCode(...octets)
  }
}
