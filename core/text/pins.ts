import { septets } from './alphabet'

export interface EncodingPin {
  /** Index of the character in the text, in UTF-16 code units. */
  index: number
  char: string
}

/**
 * The characters that push a text out of GSM-7, and so from 160 to 70 units a part.
 * Nothing for a text that fits the alphabet.
 *
 * @param most stop after this many; the ruler has room for no more
 */
export function encodingPins(text: string, most = 40): EncodingPin[] {
  const pins: EncodingPin[] = []
  for (let index = 0; index < text.length && pins.length < most; index++) {
    if (septets(text.charCodeAt(index)) !== 0) continue
    const char = String.fromCodePoint(text.codePointAt(index)!)
    pins.push({ index, char })
    index += char.length - 1
  }
  return pins
}
