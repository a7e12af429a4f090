import { REQUEST_WORDS } from './words'
import { findRequest } from './find'
import { plainly, sentencesOf } from './plain'

/** Whoever writes more than this asks at the beginning; the rest costs nothing. */
const MOST_SEEN = 2_000

/** A mark at the end of a word or a sentence, not one within an address of the web. */
const MARK = /[?？؟\u037E](?=[\s"'”’»)\]!?？]|$)/u

const OPENERS = Object.values(REQUEST_WORDS).flatMap(({ asks }) => asks)
/** At the beginning of a text or a sentence, after no more than a word such as "and". */
const ASKS = new RegExp(String.raw`(?:^|[.!,]\s*)(?:(?:and|but|so|und|aber|et|mais|y|pero) )?(?:${OPENERS.join('|')})(?![\p{L}\d])`, 'u')

/**
 * Whether somebody wants to know or to have something, so that a person should answer soon: a question mark, a sentence that
 * begins as questions do in English, German, French and Spanish, or a wish.
 */
export function asksSomething(text: string): boolean {
  const seen = text.slice(0, MOST_SEEN)
  return MARK.test(seen) || sentencesOf(seen).some(sentence => ASKS.test(plainly(sentence).trim())) || findRequest(seen, '2000-01-01T00:00') !== null
}
