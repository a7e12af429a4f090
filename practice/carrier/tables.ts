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

const DEFAULT = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\x1BÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const EXTENSION: Record<number, string> = { 0x0A: '\f', 0x14: '^', 0x28: '{', 0x29: '}', 0x2F: '\\', 0x3C: '[', 0x3D: '~', 0x3E: ']', 0x40: '|', 0x65: '€' }

/** As differences from the tables that they stand in for. */
const LOCKING: Record<number, Record<number, string>> = {
  1: { 0x04: '€', 0x07: 'ı', 0x0B: 'Ğ', 0x0C: 'ğ', 0x1C: 'Ş', 0x1D: 'ş', 0x40: 'İ', 0x60: 'ç' },
  3: {
    0x04: 'ê', 0x06: 'ú', 0x07: 'í', 0x08: 'ó', 0x09: 'ç', 0x0B: 'Ô', 0x0C: 'ô', 0x0E: 'Á', 0x0F: 'á',
    0x12: 'ª', 0x13: 'Ç', 0x14: 'À', 0x15: '∞', 0x16: '^', 0x17: '\\', 0x18: '€', 0x19: 'Ó', 0x1A: '|', 0x1C: 'Â', 0x1D: 'â', 0x1E: 'Ê', 0x24: 'º', 0x40: 'Í',
    0x5B: 'Ã', 0x5C: 'Õ', 0x5D: 'Ú', 0x60: '~', 0x7B: 'ã', 0x7C: 'õ', 0x7D: '`',
  },
}
const SINGLE: Record<number, Record<number, string>> = {
  1: { 0x47: 'Ğ', 0x49: 'İ', 0x53: 'Ş', 0x63: 'ç', 0x67: 'ğ', 0x69: 'ı', 0x73: 'ş' },
  2: { 0x09: 'ç', 0x41: 'Á', 0x49: 'Í', 0x4F: 'Ó', 0x55: 'Ú', 0x61: 'á', 0x69: 'í', 0x6F: 'ó', 0x75: 'ú' },
  3: {
    0x05: 'ê', 0x09: 'ç', 0x0B: 'Ô', 0x0C: 'ô', 0x0E: 'Á', 0x0F: 'á', 0x12: 'Φ', 0x13: 'Γ', 0x15: 'Ω', 0x16: 'Π', 0x17: 'Ψ', 0x18: 'Σ', 0x19: 'Θ', 0x1F: 'Ê',
    0x41: 'À', 0x49: 'Í', 0x4F: 'Ó', 0x55: 'Ú', 0x5B: 'Ã', 0x5C: 'Õ', 0x61: 'Â', 0x69: 'í', 0x6F: 'ó', 0x75: 'ú', 0x7B: 'ã', 0x7C: 'õ', 0x7F: 'â',
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
