export type TextEncoding = 'UTF-8' | 'UTF-16LE' | 'UTF-16BE' | 'Windows-1252'

/**
 * The text of a file, as spreadsheets and telephones write it: UTF-8 and UTF-16 with or without a mark at
 * the beginning, else Windows-1252, in which every row of bytes means something.
 *
 * Source: the Encoding Standard (WHATWG) for what the names mean; the order of guesses is common practice.
 */
export function decodeText(bytes: Uint8Array): { text: string, encoding: TextEncoding } {
  const encoding = encodingOf(bytes)
  // the mark at the beginning is taken off by the decoder
  return { text: encoding === 'Windows-1252' ? decodeWindows1252(bytes) : new TextDecoder(encoding.toLowerCase()).decode(bytes), encoding }
}

/** What Windows-1252 has where Latin-1 has control characters, from 0x80 on. */
const HIGH = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ'

/**
 * By a table, for the decoder of some runtimes takes it for Latin-1 and loses dashes and curly quotes.
 *
 * Source: the Encoding Standard (WHATWG), index windows-1252.
 */
export function decodeWindows1252(bytes: Uint8Array): string {
  const CHUNK = 8_192
  const parts: string[] = []
  for (let start = 0; start < bytes.length; start += CHUNK) parts.push(String.fromCharCode(...bytes.subarray(start, start + CHUNK)))
  return parts.join('').replace(/[\u0080-\u009F]/g, char => HIGH[char.charCodeAt(0) - 0x80]!)
}

function encodingOf(bytes: Uint8Array): TextEncoding {
  const [a, b] = bytes
  if (a === 0xFF && b === 0xFE) return 'UTF-16LE'
  if (a === 0xFE && b === 0xFF) return 'UTF-16BE'
  const wide = withoutMark(bytes)
  if (wide) return wide
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'UTF-8'
  }
  catch {
    return 'Windows-1252'
  }
}

const LOOKED_AT = 4_096

/** In UTF-16 every other byte of a western text is zero; no other encoding has zeros at all. */
function withoutMark(bytes: Uint8Array): TextEncoding | null {
  const zeros = [0, 0]
  const end = Math.min(bytes.length, LOOKED_AT)
  for (let i = 0; i < end; i++) if (bytes[i] === 0) zeros[i % 2]!++
  const [even, odd] = zeros as [number, number]
  if (even + odd < end / 8) return null
  return odd > even ? 'UTF-16LE' : 'UTF-16BE'
}
