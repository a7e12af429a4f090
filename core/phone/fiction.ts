import type { PhoneKind } from './kinds'

/**
 * Ranges set aside for fiction, where no telephone can ring. The first are NANP practice, the
 * others Ofcom's (values from memory). `libphonenumber-js` counts the United Kingdom's mobile
 * range as invalid; Plauder takes them so that its demo company harms nobody.
 */
const FICTION: { pattern: RegExp, country?: string, kind: PhoneKind }[] = [
  // 800-555-0100 to -0199, and the like under the other codes of free calls (NANP practice, value from memory)
  { pattern: /^\+18(?:00|22|33|44|55|66|77|88)55501\d{2}$/, country: 'US', kind: 'toll-free' },
  { pattern: /^\+1[2-9]\d{2}55501\d{2}$/, kind: 'unknown' },
  { pattern: /^\+447700900\d{3}$/, country: 'GB', kind: 'mobile' },
  { pattern: /^\+442079460\d{3}$/, country: 'GB', kind: 'landline' },
  { pattern: /^\+441174960\d{3}$/, country: 'GB', kind: 'landline' },
]

/** What is known of a number from a fiction range; undefined for any other number. */
export function fictionRange(e164: string) {
  return FICTION.find(range => range.pattern.test(e164))
}
