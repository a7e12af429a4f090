import type { Money } from '~~/shared/pipelines'

const SIGNS: Record<string, string> = { USD: '$', CAD: 'C$', GBP: '£' }

/** "$7,680", "C$12.50", "£640"; the currency's own letters where it has no sign of its own here. */
export function amount(value: number, currency: string | null | undefined): string {
  const digits = Number.isInteger(value) ? 0 : 2
  const figures = value.toLocaleString('en-US', { minimumFractionDigits: digits, maximumFractionDigits: digits })
  return currency ? `${SIGNS[currency] ?? `${currency} `}${figures}` : figures
}

/** "$12,400 and £640" */
export const amounts = (all: Money[]): string => all.map(one => amount(one.amount, one.currency)).join(', ')
