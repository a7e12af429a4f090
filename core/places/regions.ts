const named = (country: string, list: string): [string, string][] =>
  list.split(', ').map(one => [`${country}-${one.slice(0, 2)}`, one.slice(3)])

/** States and provinces of the countries that have rules of their own by them: ISO 3166-2, with their names. */
export const REGIONS: Readonly<Record<string, string>> = Object.fromEntries([
  ...named('US', 'AL Alabama, AK Alaska, AZ Arizona, AR Arkansas, CA California, CO Colorado, CT Connecticut, DE Delaware, '
  + 'DC District of Columbia, FL Florida, GA Georgia, HI Hawaii, ID Idaho, IL Illinois, IN Indiana, IA Iowa, KS Kansas, KY Kentucky, '
  + 'LA Louisiana, ME Maine, MD Maryland, MA Massachusetts, MI Michigan, MN Minnesota, MS Mississippi, MO Missouri, MT Montana, '
  + 'NE Nebraska, NV Nevada, NH New Hampshire, NJ New Jersey, NM New Mexico, NY New York, NC North Carolina, ND North Dakota, OH Ohio, '
  + 'OK Oklahoma, OR Oregon, PA Pennsylvania, RI Rhode Island, SC South Carolina, SD South Dakota, TN Tennessee, TX Texas, UT Utah, '
  + 'VT Vermont, VA Virginia, WA Washington, WV West Virginia, WI Wisconsin, WY Wyoming'),
  ...named('CA', 'AB Alberta, BC British Columbia, MB Manitoba, NB New Brunswick, NL Newfoundland and Labrador, NS Nova Scotia, '
  + 'NT Northwest Territories, NU Nunavut, ON Ontario, PE Prince Edward Island, QC Quebec, SK Saskatchewan, YT Yukon'),
])

/** "US-TX" of a country and what somebody has typed as its state, in letters or by name; the country where that is none. */
export function regionOf(country: string, typed: string | null): string {
  const region = typed?.trim() ?? ''
  const code = `${country}-${region.toUpperCase()}`
  if (REGIONS[code]) return code
  const found = Object.entries(REGIONS).find(([one, name]) => one.startsWith(`${country}-`) && name.toLowerCase() === region.toLowerCase())
  return found?.[0] ?? country
}
