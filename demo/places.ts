/** Where the people of the scenario live: nine time zones from Honolulu to Bristol. `areas` are of numbers kept for fiction. */
export interface DemoPlace { city: string, region: string | null, country: 'US' | 'CA' | 'GB', zone: string, areas: string[], weight: number }

export const PLACES: DemoPlace[] = [
  { city: 'Honolulu', region: 'HI', country: 'US', zone: 'Pacific/Honolulu', areas: ['808'], weight: 2 },
  { city: 'Anchorage', region: 'AK', country: 'US', zone: 'America/Anchorage', areas: ['907'], weight: 1 },
  { city: 'Portland', region: 'OR', country: 'US', zone: 'America/Los_Angeles', areas: ['503', '971'], weight: 7 },
  { city: 'Seattle', region: 'WA', country: 'US', zone: 'America/Los_Angeles', areas: ['206'], weight: 2 },
  { city: 'Phoenix', region: 'AZ', country: 'US', zone: 'America/Phoenix', areas: ['602'], weight: 1 },
  { city: 'Denver', region: 'CO', country: 'US', zone: 'America/Denver', areas: ['303'], weight: 2 },
  { city: 'Minneapolis', region: 'MN', country: 'US', zone: 'America/Chicago', areas: ['612'], weight: 4 },
  { city: 'St. Paul', region: 'MN', country: 'US', zone: 'America/Chicago', areas: ['651'], weight: 3 },
  { city: 'Pittsburgh', region: 'PA', country: 'US', zone: 'America/New_York', areas: ['412'], weight: 2 },
  { city: 'Halifax', region: 'NS', country: 'CA', zone: 'America/Halifax', areas: ['902'], weight: 4 },
  { city: 'Dartmouth', region: 'NS', country: 'CA', zone: 'America/Halifax', areas: ['782'], weight: 2 },
  { city: 'St. John’s', region: 'NL', country: 'CA', zone: 'America/St_Johns', areas: ['709'], weight: 1 },
  { city: 'Bristol', region: null, country: 'GB', zone: 'Europe/London', areas: ['07700'], weight: 4 },
  { city: 'Bath', region: null, country: 'GB', zone: 'Europe/London', areas: ['07700'], weight: 1 },
]
