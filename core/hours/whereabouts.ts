import { readPhone } from '../phone/read'
import { regionOf } from '../places/regions'

/** Area codes (with the country's code before them) and the states or provinces in which their numbers are. */
export type NumberRegionTable = Readonly<Record<string, readonly string[]>>

/**
 * Where a person may be, for rules that hold by place: where their address is; else wherever their number may be.
 *
 * @param e164 the number with its plus; null where there is none
 * @returns ISO 3166-2, "US-TX"; the country where no more is known; empty where nothing is
 */
export function placesOfPerson(
  { country, region }: { country: string | null, region: string | null },
  e164: string | null,
  table: NumberRegionTable,
): string[] {
  if (!country) return e164 ? placesOfNumber(e164, table) : []
  const place = regionOf(country, region)
  if (place !== country || !e164) return [place]
  const agreed = placesOfNumber(e164, table).filter(one => one.startsWith(`${country}-`))
  return agreed.length > 0 ? agreed : [place]
}

function placesOfNumber(e164: string, table: NumberRegionTable): string[] {
  const known = table[e164.slice(1, 5)]
  if (known) return [...known]
  const reading = readPhone(e164)
  return reading.ok ? [reading.country] : []
}
