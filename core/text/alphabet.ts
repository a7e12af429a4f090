/**
 * The GSM 7-bit default alphabet and its extension table.
 * Source: 3GPP TS 23.038, 6.2.1 and 6.2.1.1 (tables written from memory and held in the tests
 * against Perl's Encode::GSM0338 and two independent libraries).
 */
const DEFAULT_TABLE
  = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?'
    + '¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const EXTENSION_TABLE = '\f^{}\\[~]|€'

/** Septets that each UTF-16 code unit takes: 1, 2 behind an escape, 0 where the alphabet has no such character. */
const septetsByCode = new Uint8Array(0x10000)
for (const char of DEFAULT_TABLE) septetsByCode[char.charCodeAt(0)] = 1
for (const char of EXTENSION_TABLE) septetsByCode[char.charCodeAt(0)] = 2

/** Septets of one UTF-16 code unit in the GSM 7-bit alphabet; 0 if it cannot be said there. */
export function septets(codeUnit: number): number {
  return septetsByCode[codeUnit]!
}
