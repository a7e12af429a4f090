import { COUNTRIES, countryName as nameOf } from '~~/core/places/countries'

/** "Canada"; of no country, such as +800, what it is called. */
export const countryName = (code: string | null | undefined): string => !code ? '' : code === '001' ? 'no country of its own' : nameOf(code)

export const COUNTRY_NAMES = COUNTRIES.map(nameOf).sort((a, b) => a.localeCompare(b))
