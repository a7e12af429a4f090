import { septets } from './alphabet'
import { encodingPins } from './pins'

/** Signs that word processors put in, and what says the same in the default alphabet (common practice). */
const SIGNS: Record<string, string> = {
  '‘': '\'', '’': '\'', '‚': '\'', '‛': '\'', '′': '\'', '`': '\'', '´': '\'',
  '“': '"', '”': '"', '„': '"', '″': '"', '«': '"', '»': '"', '‹': '\'', '›': '\'',
  '‐': '-', '‑': '-', '‒': '-', '–': '-', '—': '-', '−': '-', '•': '-', '·': '-',
  '…': '...', '\u00A0': ' ', '\u2009': ' ', '\u202F': ' ', '\u200B': '', '\uFEFF': '', '×': 'x', '™': 'TM', '№': 'No.',
}

const fits = (text: string) => [...text].every(char => char.length === 1 && septets(char.charCodeAt(0)) > 0)

/** What can stand for a character that makes a text dear; null where nothing says the same. */
export function swapFor(char: string): string | null {
  const sign = SIGNS[char]
  if (sign !== undefined) return sign
  const bare = char.normalize('NFD').replace(/\p{M}/gu, '')
  return bare !== '' && bare !== char && fits(bare) ? bare : null
}

/** The dear characters of a text, each once, with what can stand for it. */
export function swapsIn(text: string): { char: string, swap: string | null }[] {
  return [...new Set(encodingPins(text).map(({ char }) => char))].map(char => ({ char, swap: swapFor(char) }))
}
