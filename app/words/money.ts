import type { EntryKind, UseBy } from '~~/shared/money'
import type { Money } from '~~/shared/pipelines'

const SIGNS: Record<string, string> = { USD: '$', CAD: 'C$', GBP: '£' }

/** "$7,680", "C$12.50", "£640"; the currency's own letters where it has no sign of its own here. */
export function amount(value: number, currency: string | null | undefined): string {
  const digits = Number.isInteger(value) ? 0 : 2
  const figures = value.toLocaleString('en-US', { minimumFractionDigits: digits, maximumFractionDigits: digits })
  return currency ? `${SIGNS[currency] ?? `${currency} `}${figures}` : figures
}

/** "$41.20" of whole micro-units, "−$0.80" below nothing. */
export const sum = ({ micros, currency }: { micros: number, currency: string }): string => {
  const said = amount(Math.round(Math.abs(micros) / 10_000) / 100, currency)
  return micros < 0 ? `−${said}` : said
}

/** "$12,400 and £640" */
export const amounts = (all: Money[]): string => all.map(one => amount(one.amount, one.currency)).join(', ')

/** By what use is added up, and what is called what belongs to none. */
export const USE_WORDS: Record<UseBy, { name: string, none: string }> = {
  line: { name: 'line', none: 'no line' },
  colleague: { name: 'colleague', none: 'Plauder itself, and rent of lines' },
  team: { name: 'team', none: 'lines of colleagues' },
  month: { name: 'month', none: '' },
}

export const ENTRY_WORDS: Record<EntryKind, { one: string, several: string }> = {
  'paid-in': { one: 'Paid in', several: 'what was paid in' },
  'text': { one: 'Text', several: 'texts' },
  'call': { one: 'Call', several: 'calls' },
  'rent': { one: 'Rent', several: 'rent of lines' },
  'correction': { one: 'Correction', several: 'corrections' },
}
