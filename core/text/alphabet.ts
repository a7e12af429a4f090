import { NATIONAL_TABLES, readShift, type Shift } from './national'

/**
 * The GSM 7-bit default alphabet and its extension table.
 * Source: 3GPP TS 23.038, 6.2.1 and 6.2.1.1 (tables written from memory and held in the tests
 * against Perl's Encode::GSM0338 and two independent libraries).
 */
const DEFAULT_TABLE
  = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?'
    + '¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const EXTENSION_TABLE = '\f^{}\\[~]|€'
const ESCAPE = '\x1B'

/** Septets that each UTF-16 code unit takes: 1, 2 behind an escape, 0 where the alphabet has no such character. */
export type SeptetTable = Uint8Array

function tableOf(plain: string, escaped: string): SeptetTable {
  const septets = new Uint8Array(0x10000)
  for (const char of escaped) septets[char.charCodeAt(0)] = 2
  for (const char of plain) if (char !== ESCAPE) septets[char.charCodeAt(0)] = 1
  return septets
}

export const DEFAULT_SEPTETS = tableOf(DEFAULT_TABLE, EXTENSION_TABLE)

const shifted = new Map<Shift, SeptetTable>()

/** Septets by code unit while a language's tables stand in for the default ones. */
export function septetsUnder(shift: Shift): SeptetTable {
  let table = shifted.get(shift)
  if (!table) {
    const { language, single, locking } = readShift(shift)
    const tables = NATIONAL_TABLES[language]
    table = tableOf(locking ? tables.locking! : DEFAULT_TABLE, single ? Object.values(tables.single).join('') : EXTENSION_TABLE)
    shifted.set(shift, table)
  }
  return table
}

/** Septets of one UTF-16 code unit in the GSM 7-bit alphabet; 0 if it cannot be said there. */
export function septets(codeUnit: number): number {
  return DEFAULT_SEPTETS[codeUnit]!
}
