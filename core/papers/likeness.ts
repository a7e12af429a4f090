import { toPieces } from '../template/pieces'

/** Of a template less like every sample than this a carrier may ask what it is (common practice; the number is ours). */
export const LEAST_LIKENESS = 0.25

/** Of longer ones the rest tells no more, and comparing takes time with the square of it. */
const MOST_WORDS = 200

/**
 * How alike two texts are by their words: those that both have in the same order, as a share of each, brought together (F-measure
 * of the longest common subsequence: ROUGE-L of Lin, "ROUGE: A Package for Automatic Evaluation of Summaries", 2004).
 *
 * @returns 0 where they share no word, 1 where they are the same
 */
export function likeness(a: string, b: string): number {
  const [left, right] = [wordsOf(a), wordsOf(b)]
  if (left.length === 0 || right.length === 0) return 0
  const common = longestCommon(left, right)
  // precision and recall are common/right and common/left: their harmonic mean is this
  return 2 * common / (left.length + right.length)
}

/** The sample that is most like a template, by what the template says itself; what it fills in is no word of either. */
export function nearestSample(body: string, samples: readonly string[]): { sample: string, likeness: number } | null {
  const own = toPieces(body).map(piece => piece.kind === 'words' ? piece.words : ' ').join('')
  const all = samples.map(sample => ({ sample, likeness: likeness(own, withoutBlanks(sample)) }))
  return all.reduce<typeof all[number] | null>((best, one) => best && best.likeness >= one.likeness ? best : one, null)
}

/** A sample says "[first name]" or "{{ first name }}" where something is filled in. */
const withoutBlanks = (sample: string): string => sample.replace(/\[[^\]]*\]|\{\{[^}]*\}\}/g, ' ')

const wordsOf = (text: string): string[] => (text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_WORDS)

function longestCommon(a: readonly string[], b: readonly string[]): number {
  let row = new Array<number>(b.length + 1).fill(0)
  for (const word of a) {
    const next = [0]
    for (const [i, other] of b.entries()) next.push(word === other ? row[i]! + 1 : Math.max(row[i + 1]!, next[i]!))
    row = next
  }
  return row[b.length]!
}
