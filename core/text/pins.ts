import { DEFAULT_SEPTETS, septetsUnder } from './alphabet'
import { shiftsOf, type NationalLanguage } from './national'

export interface EncodingPin {
  /** Index of the character in the text, in UTF-16 code units. */
  index: number
  char: string
}

/**
 * The characters that push a text out of GSM-7, and so from 160 to 70 characters a part: those that the alphabet
 * does not have which has most of the text. Nothing for a text that fits one.
 *
 * @param most stop after this many; the ruler has room for no more
 * @param languages whose national tables the line's carrier knows
 */
export function encodingPins(text: string, most = 40, languages: readonly NationalLanguage[] = []): EncodingPin[] {
  const tables = [DEFAULT_SEPTETS, ...languages.flatMap(shiftsOf).map(septetsUnder)]
  let fewest: EncodingPin[] | null = null
  for (const septets of tables) {
    const pins: EncodingPin[] = []
    for (let index = 0; index < text.length && pins.length < most; index++) {
      if (septets[text.charCodeAt(index)] !== 0) continue
      const char = String.fromCodePoint(text.codePointAt(index)!)
      pins.push({ index, char })
      index += char.length - 1
    }
    if (!fewest || pins.length < fewest.length) fewest = pins
  }
  return fewest!
}
