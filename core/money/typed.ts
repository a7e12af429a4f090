/**
 * An amount as people type it, "50", "12.50" or "$12,5", in whole micro-units.
 *
 * @returns null where it is none, or could be two: "1,000" is a thousand to some and one to others
 */
export function microsTyped(typed: string): number | null {
  const read = /^[$£€]?\s*(\d{1,9})(?:[.,](\d{1,2}))?\s*[$£€]?$/.exec(typed.trim())
  return read ? Number(read[1]) * 1_000_000 + Number((read[2] ?? '').padEnd(2, '0')) * 10_000 : null
}
