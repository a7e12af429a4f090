import { getCountries } from 'libphonenumber-js/max'

const names = new Intl.DisplayNames('en', { type: 'region' })
const BY_NAME = new Map(getCountries().map(code => [plain(names.of(code) ?? code), code as string]))
/** Every country that has telephone numbers, as two letters (ISO 3166). */
export const COUNTRIES: string[] = getCountries()

/** As people write them besides. */
const OTHERS: Record<string, string> = {
  usa: 'US',
  unitedstatesofamerica: 'US',
  america: 'US',
  uk: 'GB',
  greatbritain: 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
}

function plain(text: string): string {
  return text.normalize('NFKD').toLowerCase().replace(/[^a-z]/g, '')
}

/** A country as two letters (ISO 3166), from its letters or its English name; null if it is none. */
export function readCountry(text: string): string | null {
  const trimmed = text.trim()
  if (/^[a-z]{2}$/i.test(trimmed)) {
    const code = trimmed.toUpperCase()
    return (getCountries() as string[]).includes(code) ? code : OTHERS[code.toLowerCase()] ?? null
  }
  return OTHERS[plain(trimmed)] ?? BY_NAME.get(plain(trimmed)) ?? null
}
