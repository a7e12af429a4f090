/** A line to text from, as far as it matters for choosing one. */
export interface NearLine { e164: string, shared: boolean }

/** Digits that two numbers share at the front: the same country, the same area. */
function commonDigits(a: string, b: string | null): number {
  let count = 0
  while (b && count < a.length && a[count] === b[count]) count++
  return count
}

/** Lines in the order in which they suit a number: those of a team first, then the nearest to its area. */
export const nearestFirst = <T extends NearLine>(lines: T[], e164: string | null): T[] =>
  [...lines].sort((a, b) => Number(b.shared) - Number(a.shared) || commonDigits(b.e164, e164) - commonDigits(a.e164, e164))
