/**
 * Zones of the states and provinces of the countries served. Where a state has two, both are named and
 * the hours must hold in both. Source: general knowledge, from memory.
 */
const EASTERN = 'America/New_York'
const CENTRAL = 'America/Chicago'
const MOUNTAIN = 'America/Denver'
const PACIFIC = 'America/Los_Angeles'

const ZONES: Record<string, Record<string, string[]>> = {
  US: {
    ...all([EASTERN], 'CT DC DE GA MA MD ME NC NH NJ NY OH PA RI SC VA VT WV'),
    ...all([CENTRAL], 'AL AR IA IL LA MN MO MS OK WI'),
    ...all([MOUNTAIN], 'CO MT NM UT WY'),
    ...all([PACIFIC], 'CA WA NV'),
    ...all([EASTERN, CENTRAL], 'FL IN KY MI TN'),
    ...all([CENTRAL, MOUNTAIN], 'KS ND NE SD TX'),
    ...all([MOUNTAIN, PACIFIC], 'ID OR'),
    AZ: ['America/Phoenix'],
    AK: ['America/Anchorage'],
    HI: ['Pacific/Honolulu'],
  },
  CA: {
    NS: ['America/Halifax'], NB: ['America/Moncton'], PE: ['America/Halifax'], NL: ['America/St_Johns', 'America/Halifax'],
    QC: ['America/Toronto'], ON: ['America/Toronto', 'America/Winnipeg'], MB: ['America/Winnipeg'], SK: ['America/Regina'],
    AB: ['America/Edmonton'], BC: ['America/Vancouver', 'America/Edmonton'],
  },
  GB: { '': ['Europe/London'] },
}

function all(zones: string[], regions: string): Record<string, string[]> {
  return Object.fromEntries(regions.split(' ').map(region => [region, zones]))
}

/**
 * Every zone an address may be in.
 *
 * @param country ISO 3166 two-letter code
 * @param region the state's or province's two letters; not needed where a country has one zone
 * @returns empty if nothing is known
 */
export function zonesOfAddress(country: string | null, region: string | null): string[] {
  const regions = ZONES[country ?? '']
  return regions?.[''] ?? regions?.[region?.trim().toUpperCase() ?? ''] ?? []
}

/**
 * A person's zones: the record's own, else the address's (where that leaves several, those of them that
 * the number agrees with), else every zone the number may be in.
 */
export function zonesOfPerson(
  person: { zone: string | null, country: string | null, region: string | null },
  ofNumber: string[],
): string[] {
  if (person.zone) return [person.zone]
  const ofAddress = zonesOfAddress(person.country, person.region)
  if (ofAddress.length === 0) return ofNumber
  const agreed = ofAddress.filter(zone => ofNumber.includes(zone))
  return agreed.length > 0 ? agreed : ofAddress
}
