import { formatFor, type ChosenFormat, type ClockFormat } from '~~/core/hours/format'
import { sayMomentsIn } from '~~/core/hours/say'

/** What the browser tells of its language; outside of one, as in Britain. */
const locale = globalThis.navigator?.language ?? 'en-GB'

const format = shallowRef<ClockFormat>(formatFor({ hours: null, dayFirst: null }, locale))

/** How whoever sits here reads times and days. One page has one reader, so that not every sentence has to be told. */
export const readersFormat = (): ClockFormat => format.value

export const readAs = (chosen: ChosenFormat) => void (format.value = formatFor(chosen, locale))

/** A sentence of the server's, its moments as the reader writes them. */
export const saidToReader = (sentence: string): string => sayMomentsIn(sentence, new Date().getFullYear(), format.value)
