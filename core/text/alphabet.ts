import { EXTENSION, NATIONAL_TABLES, readShift, type Shift } from './national'

/**
 * The GSM 7-bit default alphabet and its extension table.
 * Source: 3GPP TS 23.038, 6.2.1 and 6.2.1.1 (tables written from memory and held in the tests
 * against Perl's Encode::GSM0338 and two independent libraries).
 */
const DEFAULT_TABLE
  = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞ\x1BÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?'
    + '¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const ESCAPE = '\x1B'

/** Septets that each UTF-16 code unit takes: 1, 2 behind an escape, 0 where the alphabet has no such character. */
export type SeptetTable = Uint8Array

function tableOf(plain: string, escaped: string): SeptetTable {
  const septets = new Uint8Array(0x10000)
  for (const char of escaped) septets[char.charCodeAt(0)] = 2
  for (const char of plain) if (char !== ESCAPE) septets[char.charCodeAt(0)] = 1
  return septets
}

export const DEFAULT_SEPTETS = tableOf(DEFAULT_TABLE, Object.values(EXTENSION).join(''))

const shifted = new Map<Shift, SeptetTable>()

/** Septets by code unit while a language's tables stand in for the default ones. */
export function septetsUnder(shift: Shift): SeptetTable {
  let table = shifted.get(shift)
  if (!table) {
    const { plain, escaped } = charactersUnder(shift)
    table = tableOf(plain, Object.values(escaped).join(''))
    shifted.set(shift, table)
  }
  return table
}

/** What each septet stands for, in order, by itself and behind an escape, while a language's tables stand in for the default ones. */
export function charactersUnder(shift: Shift | null): { plain: string, escaped: Record<number, string> } {
  if (!shift) return { plain: DEFAULT_TABLE, escaped: EXTENSION }
  const { language, single, locking } = readShift(shift)
  const tables = NATIONAL_TABLES[language]
  return { plain: locking ? tables.locking! : DEFAULT_TABLE, escaped: single ? tables.single : EXTENSION }
}

/** Septets of one UTF-16 code unit in the GSM 7-bit alphabet; 0 if it cannot be said there. */
export function septets(codeUnit: number): number {
  return DEFAULT_SEPTETS[codeUnit]!
}
