import { charactersUnder } from './alphabet'
import type { Shift } from './national'

/** What announces that the next septet is one of the extension table. */
const ESCAPE = 0x1B

interface Codes { plain: string, escaped: Record<number, string>, septetsOf: Map<string, number[]> }

const known = new Map<Shift | null, Codes>()

function codesUnder(shift: Shift | null): Codes {
  let codes = known.get(shift)
  if (!codes) {
    const { plain, escaped } = charactersUnder(shift)
    const septetsOf = new Map(Object.entries(escaped).map(([code, character]) => [character, [ESCAPE, Number(code)]]))
    // what is in both tables is said without an escape
    for (let code = 0; code < plain.length; code++) if (code !== ESCAPE) septetsOf.set(plain[code]!, [code])
    known.set(shift, codes = { plain, escaped, septetsOf })
  }
  return codes
}

/**
 * A text in septets of the GSM 7-bit alphabet (3GPP TS 23.038), character by character: one each, or two behind an escape.
 *
 * @param shift whose national tables stand in for the default ones
 * @returns null where it holds a character that the tables do not have
 */
export function toSeptets(text: string, shift: Shift | null): number[][] | null {
  const { septetsOf } = codesUnder(shift)
  const septets: number[][] = []
  for (const character of text) {
    const found = septetsOf.get(character)
    if (!found) return null
    septets.push(found)
  }
  return septets
}

/** The text that septets stand for. Behind an escape, what the table does not have is what it would be without (23.038, 6.2.1.1). */
export function fromSeptets(septets: Iterable<number>, shift: Shift | null): string {
  const { plain, escaped } = codesUnder(shift)
  let text = ''
  let behindEscape = false
  for (const septet of septets) {
    if (septet === ESCAPE && !behindEscape) {
      behindEscape = true
      continue
    }
    text += (behindEscape && escaped[septet]) || (septet === ESCAPE ? ' ' : plain[septet] ?? '?')
    behindEscape = false
  }
  return text
}
