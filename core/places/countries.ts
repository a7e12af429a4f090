/** Every country and territory with telephone numbers of its own, as two letters (ISO 3166); as libphonenumber has them. */
export const COUNTRIES: string[] = `
AC AD AE AF AG AI AL AM AO AR AS AT AU AW AX AZ BA BB BD BE BF BG BH BI BJ BL BM BN BO BQ BR BS BT BW BY BZ CA CC CD CF CG CH CI CK CL CM CN
CO CR CU CV CW CX CY CZ DE DJ DK DM DO DZ EC EE EG EH ER ES ET FI FJ FK FM FO FR GA GB GD GE GF GG GH GI GL GM GN GP GQ GR GT GU GW GY HK HN
HR HT HU ID IE IL IM IN IO IQ IR IS IT JE JM JO JP KE KG KH KI KM KN KP KR KW KY KZ LA LB LC LI LK LR LS LT LU LV LY MA MC MD ME MF MG MH MK
ML MM MN MO MP MQ MR MS MT MU MV MW MX MY MZ NA NC NE NF NG NI NL NO NP NR NU NZ OM PA PE PF PG PH PK PL PM PR PS PT PW PY QA RE RO RS RU RW
SA SB SC SD SE SG SH SI SJ SK SL SM SN SO SR SS ST SV SX SY SZ TA TC TD TG TH TJ TK TL TM TN TO TR TT TV TW TZ UA UG US UY UZ VA VC VE VG VI
VN VU WF WS XK YE YT ZA ZM ZW`.trim().split(/\s+/)

const names = new Intl.DisplayNames('en', { type: 'region' })

/** "Canada"; letters that are no country stay as they are. */
export const countryName = (code: string): string => COUNTRIES.includes(code) ? names.of(code) ?? code : code

const BY_NAME = new Map(COUNTRIES.map(code => [plain(countryName(code)), code]))

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
    return COUNTRIES.includes(code) ? code : OTHERS[code.toLowerCase()] ?? null
  }
  return OTHERS[plain(trimmed)] ?? BY_NAME.get(plain(trimmed)) ?? null
}
