/**
 * The alphabets that telephones here know: the default one and the national ones, by the numbers that a
 * header gives them. Source: 3GPP TS 23.038, 6.2.1 and annex A, from memory. Written apart from the
 * application's own tables, on purpose.
 */
export interface Tables {
  /** Stands in for the extension table: 1 Turkish, 2 Spanish, 3 Portuguese; 0 for none. */
  single: number
  /** Stands in for the default table: 1 Turkish, 3 Portuguese; 0 for none. */
  locking: number
}

export const NO_TABLES: Tables = { single: 0, locking: 0 }

const DEFAULT
  = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\x1BÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const EXTENSION: Record<number, string> = {
  0x0a: '\f',
  0x14: '^',
  0x28: '{',
  0x29: '}',
  0x2f: '\\',
  0x3c: '[',
  0x3d: '~',
  0x3e: ']',
  0x40: '|',
  0x65: '€',
}

/** As differences from the tables that they stand in for. */
const LOCKING: Record<number, Record<number, string>> = {
  1: { 0x04: '€', 0x07: 'ı', 0x0b: 'Ğ', 0x0c: 'ğ', 0x1c: 'Ş', 0x1d: 'ş', 0x40: 'İ', 0x60: 'ç' },
  3: {
    0x04: 'ê',
    0x06: 'ú',
    0x07: 'í',
    0x08: 'ó',
    0x09: 'ç',
    0x0b: 'Ô',
    0x0c: 'ô',
    0x0e: 'Á',
    0x0f: 'á',
    0x12: 'ª',
    0x13: 'Ç',
    0x14: 'À',
    0x15: '∞',
    0x16: '^',
    0x17: '\\',
    0x18: '€',
    0x19: 'Ó',
    0x1a: '|',
    0x1c: 'Â',
    0x1d: 'â',
    0x1e: 'Ê',
    0x24: 'º',
    0x40: 'Í',
    0x5b: 'Ã',
    0x5c: 'Õ',
    0x5d: 'Ú',
    0x60: '~',
    0x7b: 'ã',
    0x7c: 'õ',
    0x7d: '`',
  },
}
const SINGLE: Record<number, Record<number, string>> = {
  1: { 0x47: 'Ğ', 0x49: 'İ', 0x53: 'Ş', 0x63: 'ç', 0x67: 'ğ', 0x69: 'ı', 0x73: 'ş' },
  2: { 0x09: 'ç', 0x41: 'Á', 0x49: 'Í', 0x4f: 'Ó', 0x55: 'Ú', 0x61: 'á', 0x69: 'í', 0x6f: 'ó', 0x75: 'ú' },
  3: {
    0x05: 'ê',
    0x09: 'ç',
    0x0b: 'Ô',
    0x0c: 'ô',
    0x0e: 'Á',
    0x0f: 'á',
    0x12: 'Φ',
    0x13: 'Γ',
    0x15: 'Ω',
    0x16: 'Π',
    0x17: 'Ψ',
    0x18: 'Σ',
    0x19: 'Θ',
    0x1f: 'Ê',
    0x41: 'À',
    0x49: 'Í',
    0x4f: 'Ó',
    0x55: 'Ú',
    0x5b: 'Ã',
    0x5c: 'Õ',
    0x61: 'Â',
    0x69: 'í',
    0x6f: 'ó',
    0x75: 'ú',
    0x7b: 'ã',
    0x7c: 'õ',
    0x7f: 'â',
  },
}

export const isTables = (value: unknown): value is Tables => {
  const { single, locking } = (value ?? {}) as Partial<Tables>
  return (single === 0 || SINGLE[single!] !== undefined) && (locking === 0 || LOCKING[locking!] !== undefined)
}

/** What each septet means while a header names these tables: by itself, and behind an escape. */
export function charactersUnder({ single, locking }: Tables): { plain: string[], escaped: Record<number, string> } {
  return { plain: [...DEFAULT].map((char, code) => LOCKING[locking]?.[code] ?? char), escaped: { ...EXTENSION, ...SINGLE[single] } }
}
