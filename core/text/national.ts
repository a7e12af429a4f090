/**
 * National language tables: further alphabets of seven bits that a carrier may know, each named in a header
 * that every part carries. Source: 3GPP TS 23.038, annex A (identifiers: 6.2.1.2.4), from memory.
 */
export const NATIONAL_LANGUAGES = ['turkish', 'spanish', 'portuguese'] as const
export type NationalLanguage = typeof NATIONAL_LANGUAGES[number]

/** Which of a language's tables are in use: the extension table alone, the default table alone, or both. */
export type Shift = `${NationalLanguage}-${'single' | 'locking' | 'both'}`

export interface NationalTables {
  /** What the header calls the language. */
  id: number
  /** In place of the extension table: characters by their septet behind an escape. */
  single: Record<number, string>
  /** In place of the default table, its 128 characters in order; the escape is U+001B. */
  locking: string | null
}

/** The default extension table, which every other one holds too: form feed, brackets, and the euro. */
export const EXTENSION: Record<number, string> = { 0x0A: '\f', 0x14: '^', 0x28: '{', 0x29: '}', 0x2F: '\\', 0x3C: '[', 0x3D: '~', 0x3E: ']', 0x40: '|', 0x65: '€' }
const UPPER = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'
const LOWER = UPPER.toLowerCase()
const FIGURES = '%&\'()*+,-./0123456789:;<=>?'

export const NATIONAL_TABLES: Record<NationalLanguage, NationalTables> = {
  turkish: {
    id: 1,
    single: { ...EXTENSION, 0x47: 'Ğ', 0x49: 'İ', 0x53: 'Ş', 0x63: 'ç', 0x67: 'ğ', 0x69: 'ı', 0x73: 'ş' },
    locking: `@£$¥€éùıòÇ\nĞğ\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\x1BŞşßÉ !"#¤${FIGURES}İ${UPPER}ÄÖÑÜ§ç${LOWER}äöñüà`,
  },
  spanish: {
    id: 2,
    single: { ...EXTENSION, 0x09: 'ç', 0x41: 'Á', 0x49: 'Í', 0x4f: 'Ó', 0x55: 'Ú', 0x61: 'á', 0x69: 'í', 0x6f: 'ó', 0x75: 'ú' },
    locking: null,
  },
  portuguese: {
    id: 3,
    single: {
      ...EXTENSION,
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
    locking: `@£$¥êéúíóç\nÔô\rÁáΔ_ªÇÀ∞^\\€Ó|\x1BÂâÊÉ !"#º${FIGURES}Í${UPPER}ÃÕÚÜ§~${LOWER}ãõ\`üà`,
  },
}

/** The ways in which a language can be used, those with the shorter header first. */
export function shiftsOf(language: NationalLanguage): Shift[] {
  return NATIONAL_TABLES[language].locking ? [`${language}-single`, `${language}-locking`, `${language}-both`] : [`${language}-single`]
}

export function readShift(shift: Shift): { language: NationalLanguage, single: boolean, locking: boolean } {
  const [language, use] = shift.split('-') as [NationalLanguage, string]
  return { language, single: use !== 'locking', locking: use !== 'single' }
}
