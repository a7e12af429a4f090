/** Prefixes of E.164 numbers (without the plus) and the zones, as indexes, in which such a number may be. */
export interface NumberZoneTable {
  zones: string[]
  prefixes: Record<string, number[]>
}

/**
 * Numbers that carry no place though their country has several zones, where the table knows only one.
 * Australian mobiles (+61 4) ring anywhere in Australia (common practice).
 */
const PLACELESS: { prefix: string, zones: string[] }[] = [
  {
    prefix: '614',
    zones: ['Australia/Perth', 'Australia/Darwin', 'Australia/Adelaide', 'Australia/Brisbane', 'Australia/Sydney', 'Australia/Hobart'],
  },
]

/**
 * Every zone that a number may be in, by its longest known prefix.
 *
 * @param e164 the number with its plus
 * @returns IANA names; empty where nothing is known
 */
export function zonesOfNumber(e164: string, table: NumberZoneTable): string[] {
  const digits = e164.replace(/^\+/, '')
  const placeless = PLACELESS.find(entry => digits.startsWith(entry.prefix))
  if (placeless) return placeless.zones
  for (let length = digits.length; length > 0; length--) {
    const found = table.prefixes[digits.slice(0, length)]
    if (found) return found.map(index => table.zones[index]!)
  }
  return []
}
