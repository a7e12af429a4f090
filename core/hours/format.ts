/** How somebody writes times and days. */
export interface ClockFormat {
  hours: 12 | 24
  /** "3 December" and not "December 3". */
  dayFirst: boolean
}

/**
 * How people of a language and region write them.
 *
 * @param locale such as `en-GB` or `de` (BCP 47); one that is not known counts as the runtime's own
 * @source Unicode CLDR, as the runtime's `Intl` has it
 */
export function formatOf(locale: string): ClockFormat {
  const [known] = supported(locale)
  const cycle = new Intl.DateTimeFormat(known, { hour: 'numeric' }).resolvedOptions().hourCycle
  const order = new Intl.DateTimeFormat(known, { day: 'numeric', month: 'numeric' }).formatToParts(0).map(({ type }) => type)
  return { hours: cycle === 'h12' || cycle === 'h11' ? 12 : 24, dayFirst: order.indexOf('day') < order.indexOf('month') }
}

function supported(locale: string): string[] {
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(locale)
  }
  catch {
    return []
  }
}

/** Without the script, by which the data is not looked up. */
function localeOf(country: string): string {
  const { language, region } = new Intl.Locale('und', { region: country }).maximize()
  return `${language}-${region}`
}

const ofCountries = new Map<string, ClockFormat>()

/**
 * How people of a country write them, in the language that most of them speak.
 *
 * @param country ISO 3166-1 alpha-2
 */
export function formatOfCountry(country: string): ClockFormat {
  const known = ofCountries.get(country) ?? formatOf(/^[A-Z]{2}$/.test(country) ? localeOf(country) : '')
  ofCountries.set(country, known)
  return known
}

/** What somebody has chosen of it; null is as their browser does. */
export type ChosenFormat = { [K in keyof ClockFormat]: ClockFormat[K] | null }

/** What was chosen, and for the rest how people of their language write it. */
export function formatFor({ hours, dayFirst }: ChosenFormat, locale: string): ClockFormat {
  const usual = formatOf(locale)
  return { hours: hours ?? usual.hours, dayFirst: dayFirst ?? usual.dayFirst }
}

/** Whether something kept is a time of day, as `15:30`. */
export const isTimeOfDay = (text: string): boolean => /^(?:[01]\d|2[0-3]):[0-5]\d$/.test(text)

/** "15:30" on the wall as its reader writes it: "3:30 pm". */
export function sayTime(time: string, { hours }: ClockFormat): string {
  const [hour, minute] = [Number(time.slice(0, 2)), time.slice(3, 5)]
  return hours === 24 ? `${hour}:${minute}` : `${hour % 12 || 12}:${minute} ${hour % 24 < 12 ? 'am' : 'pm'}`
}
