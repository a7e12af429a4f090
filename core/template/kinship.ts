import { toPieces } from './pieces'

/** A text of which less than this share of the template's own words is left is somebody's own (common practice). */
const LEAST_SHARE = 0.5

/**
 * Whether a text still is a template's, after somebody has written on in it: at least half of the words that the template
 * has in every text are there, each as often. One that consists of fields alone gives no words to go by, and counts.
 *
 * @param body the template as it is stored, Liquid
 */
export function isStillFrom(text: string, body: string): boolean {
  const own = toPieces(body).flatMap(piece => piece.kind === 'words' ? wordsOf(piece.words) : [])
  if (own.length === 0) return true
  const left = new Map<string, number>()
  for (const word of wordsOf(text)) left.set(word, (left.get(word) ?? 0) + 1)
  const there = own.filter((word) => {
    const count = left.get(word) ?? 0
    left.set(word, count - 1)
    return count > 0
  })
  return there.length >= LEAST_SHARE * own.length
}

const wordsOf = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []
