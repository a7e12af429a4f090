import Holidays from 'date-holidays'

const known = new Map<string, { day: string, name: string }[]>()

/**
 * The public holidays of a place in a year, with those of the state or province. Source: the package date-holidays, whose data come
 * from Wikipedia and the laws that it names (CC BY-SA 3.0).
 *
 * @param place ISO 3166-2, "CA-NS", or a country
 * @returns in order; empty for a place of which nothing is known
 */
export function holidaysIn(place: string, year: number): { day: string, name: string }[] {
  const key = `${place} ${year}`
  const before = known.get(key)
  if (before) return before
  const [country, region] = place.split('-') as [string, string | undefined]
  const days = new Holidays(country, region ?? '', { languages: ['en'], types: ['public'] }).getHolidays(year, 'en')
  const found = (days || []).map(({ date, name }) => ({ day: date.slice(0, 10), name }))
  known.set(key, found)
  return found
}

/** Countries of which holidays are known. */
export const HOLIDAY_COUNTRIES: ReadonlySet<string> = new Set(Object.keys(new Holidays().getCountries()))
