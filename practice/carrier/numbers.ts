/** The numbers that the practice carrier has given to its one customer. All are from ranges kept for fiction. */
export const LINES: { number: string, country: string }[] = [
  { number: '+15035550118', country: 'US' },
  { number: '+16125550104', country: 'US' },
  { number: '+15035550190', country: 'US' },
  { number: '+15035550119', country: 'US' },
  { number: '+19025550120', country: 'CA' },
  { number: '+17825550122', country: 'CA' },
  { number: '+447700900118', country: 'GB' },
]

export const MOST_PARTS = 10

/** Of one message with pictures, and the bytes of each. */
export const MOST_PICTURES = 3
export const MOST_PICTURE_BYTES = 600_000

/** Invented prices, of the size that such texts cost. Pictures go only within the US and Canada (common practice). */
export const PRICES = [
  { country: 'US', microsPerPart: 8_000, microsPerPicture: 20_000, currency: 'USD' },
  { country: 'CA', microsPerPart: 8_500, microsPerPicture: 24_000, currency: 'USD' },
  { country: 'GB', microsPerPart: 38_000, microsPerPicture: null, currency: 'USD' },
]

const CANADIAN_AREAS = new Set([
  '204',
  '226',
  '236',
  '250',
  '289',
  '306',
  '343',
  '365',
  '403',
  '416',
  '418',
  '431',
  '437',
  '438',
  '450',
  '506',
  '514',
  '519',
  '548',
  '579',
  '581',
  '587',
  '604',
  '613',
  '639',
  '647',
  '672',
  '705',
  '709',
  '778',
  '780',
  '782',
  '807',
  '819',
  '825',
  '867',
  '873',
  '902',
  '905',
])

export function countryOf(number: string): string | null {
  if (number.startsWith('+44')) return 'GB'
  if (!number.startsWith('+1')) return null
  return CANADIAN_AREAS.has(number.slice(2, 5)) ? 'CA' : 'US'
}
