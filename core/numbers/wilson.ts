/** A share with its interval, each from 0 to 1. */
export interface Share { of: number, hits: number, share: number, low: number, high: number }

/** Standard normal quantile of a two-sided interval of 95 %. */
const Z = 1.959964

/**
 * The Wilson score interval of a share, 95 %: honest for few cases and for none (Wilson 1927; check values after
 * Newcombe, Statistics in Medicine 17 (1998) 857-872).
 *
 * @returns null where there are no cases
 */
export function wilson(hits: number, of: number): Share | null {
  if (of === 0) return null
  const share = hits / of
  const spread = Z * Math.sqrt(share * (1 - share) / of + Z * Z / (4 * of * of))
  const middle = share + Z * Z / (2 * of)
  const scale = 1 + Z * Z / of
  return { of, hits, share, low: Math.max(0, (middle - spread) / scale), high: Math.min(1, (middle + spread) / scale) }
}

/** Whether two shares differ beyond chance, by the interval of their difference. */
export interface Difference { low: number, high: number, verdict: 'first' | 'second' | 'open' }

/**
 * The interval of the difference of two shares, first less second, by Newcombe's square-and-add method from the
 * two Wilson intervals (Newcombe, Statistics in Medicine 17 (1998) 873-890, method 10).
 */
export function difference(first: Share, second: Share): Difference {
  const between = first.share - second.share
  const low = between - Math.hypot(first.share - first.low, second.high - second.share)
  const high = between + Math.hypot(first.high - first.share, second.share - second.low)
  return { low, high, verdict: low > 0 ? 'first' : high < 0 ? 'second' : 'open' }
}
