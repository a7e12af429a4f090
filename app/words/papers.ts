import { FEWEST_SAMPLES, waitOf, type AskedFor, type PapersState } from '~~/core/papers/papers'
import type { ZoneRules } from '~~/core/hours/rules'
import type { PapersWanted, Registration } from '~~/shared/papers'
import { many } from './count'
import { countryName } from './country'
import { shortDay } from './time'

export const PAPER_WORDS: Record<AskedFor, string> = {
  firm: 'the company',
  address: 'its address',
  country: 'its country',
  contact: 'whom a carrier can ask',
  mail: 'their mail address',
  about: 'what you text about',
  agree: 'how people agree',
  samples: `${FEWEST_SAMPLES} sample texts`,
}

export const PAPERS_STATE_WORDS: Record<PapersState, string> = {
  'handed-in': 'handed in',
  'asked-back': 'sent back with a question',
  'accepted': 'accepted',
  'refused': 'refused',
}

/** "7 to 15 days". */
export const daysWords = ({ leastDays, mostDays }: Pick<PapersWanted, 'leastDays' | 'mostDays'>): string =>
  leastDays === mostDays ? many(mostDays, 'day', 'days') : `${leastDays} to ${mostDays} days`

/** How long papers have waited, and whether that is as usual. */
export function waitWords(one: Pick<Registration, 'handedAt' | 'leastDays' | 'mostDays'>, now: number): { waits: string, late: boolean } {
  const { days, late } = waitOf(one, now)
  return { waits: `${days === 0 ? 'since today' : `for ${many(days, 'day', 'days')}`}, usually ${daysWords(one)}${late ? ': ask them' : ''}`, late }
}

export const withWhom = ({ title, country }: Pick<Registration, 'title' | 'country'>): string => `${title}, ${countryName(country)}`

/** "1 Dec · The practice carrier, Canada handed in, Rafe Pennington". */
export const stepWords = (of: Pick<Registration, 'title' | 'country'>, { at, kind, words, by }: Registration['steps'][number], zone: ZoneRules): string =>
  `${shortDay(at, zone)} · ${[`${withWhom(of)} ${PAPERS_STATE_WORDS[kind]}`, by].filter(Boolean).join(', ')}${words ? `: “${words}”` : ''}`

/** "53 % alike". */
export const alikeWords = (likeness: number): string => `${Math.round(likeness * 100)} % alike`
