/** Money as whole millionths of a currency's unit, so that sums of prices stay exact. */
export interface Money { micros: number, currency: string }

const CENTS: Record<string, string> = { USD: '¢', CAD: '¢', GBP: 'p', EUR: 'c' }

/**
 * A price in the size people speak of: "1.6 ¢" below one unit, "18.98 $" above.
 *
 * @param micros millionths of the unit
 */
export function sayMoney({ micros, currency }: Money): string {
  const sign = micros < 0 ? '-' : ''
  const size = Math.abs(micros)
  if (size < 1_000_000) return `${sign}${trimZeros((size / 10_000).toFixed(2))} ${CENTS[currency] ?? `${currency}/100`}`
  return `${sign}${(size / 1_000_000).toFixed(2)} ${SYMBOLS[currency] ?? currency}`
}

const SYMBOLS: Record<string, string> = { USD: '$', CAD: 'C$', GBP: '£', EUR: '€' }

const trimZeros = (digits: string) => digits.replace(/\.?0+$/, '')
