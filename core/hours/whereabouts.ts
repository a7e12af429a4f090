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
  const regions = e164 ? table[e164.slice(1, 5)] ?? [] : []
  if (country) {
    const place = regionOf(country, region)
    const agreed = place === country ? regions.filter(one => one.startsWith(`${country}-`)) : []
    return agreed.length > 0 ? agreed : [place]
  }
  if (regions.length > 0 || !e164) return [...regions]
  // a number is read thoroughly, which takes its time: only where nothing else says where somebody is
  const reading = readPhone(e164)
  return reading.ok ? [reading.country] : []
}
