import { split } from 'split-sms'

/**
 * A text on its way through the air: cut into parts, each in octets as a telephone gets them, and put
 * together again by the handset. Independent of the application's own counting, on purpose.
 */
export interface Part {
  /** Names the text to which the part belongs, as in the header of a joined part. */
  reference: number
  index: number
  of: number
  coding: 'gsm' | 'ucs2'
  /** Septets, one a number, or UCS-2 octets in big-endian order. */
  data: number[]
}

const TABLE = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\x1BÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const ESCAPE = 0x1B
/** Source: 3GPP TS 23.038, 6.2.1.1, from memory. */
const EXTENSION: Record<number, string> = { 0x0A: '\f', 0x14: '^', 0x28: '{', 0x29: '}', 0x2F: '\\', 0x3C: '[', 0x3D: '~', 0x3E: ']', 0x40: '|', 0x65: '€' }
const extensionCodes = Object.fromEntries(Object.entries(EXTENSION).map(([code, char]) => [char, Number(code)]))

export function cut(text: string, reference: number): Part[] {
  const { characterSet, parts } = split(text)
  const coding = characterSet === 'GSM' ? 'gsm' : 'ucs2'
  return parts.map(({ content }, index) => ({
    reference,
    index,
    of: parts.length,
    coding,
    data: coding === 'gsm' ? toSeptets(content) : [...Buffer.from(content, 'utf16le').swap16()],
  }))
}

/** What a telephone shows once all parts are there, in whatever order they came; null before. */
export function join(parts: Part[]): string | null {
  const inOrder = [...parts].sort((a, b) => a.index - b.index)
  if (inOrder.length !== parts[0]?.of) return null
  return inOrder.map(({ coding, data }) => coding === 'gsm' ? fromSeptets(data) : Buffer.from(data).swap16().toString('utf16le')).join('')
}

function toSeptets(text: string): number[] {
  return [...text].flatMap((char) => {
    const code = TABLE.indexOf(char)
    return code >= 0 ? [code] : [ESCAPE, extensionCodes[char]!]
  })
}

function fromSeptets(septets: number[]): string {
  let text = ''
  for (let i = 0; i < septets.length; i++) {
    text += septets[i] === ESCAPE ? EXTENSION[septets[++i]!] ?? ' ' : TABLE[septets[i]!]
  }
  return text
}
