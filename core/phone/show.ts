/**
 * How the numbers of a country are grouped by those who live there, each after its country code. The first that fits counts.
 * Source: the international formats of libphonenumber's metadata, with which a test compares them.
 */
const HABITS: { code: string, groups: RegExp }[] = [
  // North America and the Caribbean
  { code: '1', groups: /^(\d{3})(\d{3})(\d{4})$/ },
  // United Kingdom
  { code: '44', groups: /^(7\d{3})(\d{6})$/ },
  { code: '44', groups: /^(20|23|24|28|29)(\d{4})(\d{4})$/ },
  { code: '44', groups: /^(1[1-9]1|11\d|3\d\d|800|8[47]\d)(\d{3})(\d{4})$/ },
  { code: '44', groups: /^(1\d{3})(\d{6})$/ },
  // France
  { code: '33', groups: /^([1-79])(\d{2})(\d{2})(\d{2})(\d{2})$/ },
  // Spain
  { code: '34', groups: /^([5-9]\d{2})(\d{2})(\d{2})(\d{2})$/ },
  // Italy: mobiles
  { code: '39', groups: /^(3\d{2})(\d{3})(\d{4})$/ },
  // Germany: mobiles, whose subscriber number is not divided
  { code: '49', groups: /^(15\d{2})(\d{7})$/ },
  { code: '49', groups: /^(1[67]\d)(\d{7,8})$/ },
  // Ireland: mobiles, and Dublin
  { code: '353', groups: /^(8\d)(\d{3})(\d{4})$/ },
  { code: '353', groups: /^(1)(\d{3})(\d{4})$/ },
  // Netherlands: mobiles
  { code: '31', groups: /^(6)(\d{8})$/ },
  // Belgium: mobiles
  { code: '32', groups: /^(4\d{2})(\d{2})(\d{2})(\d{2})$/ },
  // Switzerland
  { code: '41', groups: /^(\d{2})(\d{3})(\d{2})(\d{2})$/ },
  // Austria: mobiles
  { code: '43', groups: /^(6\d{2})(\d{6,8})$/ },
  // Australia
  { code: '61', groups: /^(4\d{2})(\d{3})(\d{3})$/ },
  { code: '61', groups: /^([2378])(\d{4})(\d{4})$/ },
  // New Zealand: mobiles
  { code: '64', groups: /^(2[1-9])(\d{3})(\d{4})$/ },
  // Mexico: the two largest cities, and the others
  { code: '52', groups: /^(33|55|56|81)(\d{4})(\d{4})$/ },
  { code: '52', groups: /^(\d{3})(\d{3})(\d{4})$/ },
]

/**
 * A number as people where it is read it: grouped, with its country code. Those of countries whose habits are not known here
 * are grouped in threes; no metadata is needed in the browser for that.
 *
 * @param home leaves the code out for numbers of North America, where everybody reads them so
 */
export function showPhone(e164: string, home = false): string {
  for (const { code, groups } of HABITS) {
    if (!e164.startsWith(`+${code}`)) continue
    const parts = groups.exec(e164.slice(code.length + 1))?.slice(1)
    if (parts) return [...(home && code === '1' ? [] : [`+${code}`]), ...parts].join(' ')
  }
  return e164.replace(/(\d{3})(?=\d{3})/g, '$1 ')
}
