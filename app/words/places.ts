import { COUNTRIES } from '~~/core/places/countries'
import { REGIONS } from '~~/core/places/regions'
import { countryName } from './country'

/** "Texas" of "US-TX"; of a country its name. */
export const placeName = (place: string): string => REGIONS[place] ?? countryName(place)

/** Countries by name, each with its states and provinces after it. */
export const PLACES: { value: string, label: string }[] = [...COUNTRIES]
  .sort((a, b) => countryName(a).localeCompare(countryName(b)))
  .flatMap(country => [
    { value: country, label: countryName(country) },
    ...Object.entries(REGIONS).filter(([place]) => place.startsWith(`${country}-`)).map(([value, name]) => ({ value, label: `${countryName(country)}: ${name}` })),
  ])
