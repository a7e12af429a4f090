/** What carriers ask a firm before its texts go on to other networks (common practice): written once, handed in to each. */
export interface Papers {
  /** As it is registered. */
  firm: string
  /** What it is called where people know it, if that is something else. */
  brand: string
  /** In the register of companies or for tax, where there is one. */
  number: string
  address: string
  country: string
  website: string
  /** Whom a carrier can ask. */
  contact: string
  mail: string
  phone: string
  /** What is texted, to whom, and why. */
  about: string
  /** How people agree to it, and how they end it. */
  agree: string
  /** Texts as they are sent. */
  samples: string[]
}

export const NO_PAPERS: Papers = {
  firm: '', brand: '', number: '', address: '', country: '', website: '', contact: '', mail: '', phone: '', about: '', agree: '', samples: [],
}

/** Fewer than these no carrier looks at (common practice). */
export const FEWEST_SAMPLES = 2
export const MOST_SAMPLES = 10

/** What has to be there before papers are handed in, in the order in which it is asked. */
export const ASKED_FOR = ['firm', 'address', 'country', 'contact', 'mail', 'about', 'agree', 'samples'] as const satisfies (keyof Papers)[]
export type AskedFor = typeof ASKED_FOR[number]

export const missingFrom = (papers: Papers): AskedFor[] => ASKED_FOR.filter(key =>
  key === 'samples' ? papers.samples.length < FEWEST_SAMPLES : papers[key].trim() === '')

/** Whether what was handed in is not what is written by now. */
export const differ = (handed: Papers, now: Papers): boolean =>
  (Object.keys(NO_PAPERS) as (keyof Papers)[]).some(key => JSON.stringify(handed[key]) !== JSON.stringify(now[key]))

/** How papers stand with a carrier. */
export const PAPERS_STATES = ['handed-in', 'asked-back', 'accepted', 'refused'] as const
export type PapersState = typeof PAPERS_STATES[number]

/** What a carrier can say of papers that it has. */
export type PapersWord = Exclude<PapersState, 'handed-in'>

/**
 * For how many days papers have waited (at least none: clocks differ by moments), and whether that is longer than is usual.
 *
 * @param handedAt epoch milliseconds
 */
export function waitOf({ handedAt, mostDays }: { handedAt: number, mostDays: number }, now: number): { days: number, late: boolean } {
  const days = Math.max(0, Math.floor((now - handedAt) / 86_400_000))
  return { days, late: days > mostDays }
}
