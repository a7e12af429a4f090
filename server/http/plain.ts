import { Problem } from './problem'

/** Nobody nests deeper than this, and whoever does wants us to go down with them. */
const DEEPEST = 24
/** Of names and values in one request. */
const MOST_PARTS = 200_000

/**
 * Names that every object answers to by itself. Whoever asks one what it is would be told what somebody has sent. Only
 * `constructor` can be the name of a field, and nobody asks for that.
 */
const ANSWERED_TO = new Set(Object.getOwnPropertyNames(Object.prototype).filter(name => name !== 'constructor'))

/**
 * What was sent, made plain before anybody reads it: words that can be kept (no NUL, no half of a pair of surrogates), no
 * name that an object answers to by itself, and not nested without end. What is beyond that is refused here, for every
 * route alike.
 *
 * @throws Problem 400 that names what is wrong with it
 */
export function plain(input: unknown): unknown {
  let parts = 0
  const take = (value: unknown, depth: number): unknown => {
    if (++parts > MOST_PARTS) throw refused('There is more in it than anybody fills in.')
    if (depth > DEEPEST) throw refused('It is nested too deeply.')
    if (typeof value === 'string') return words(value)
    if (typeof value === 'number' && !Number.isFinite(value)) throw refused('A number in it is none.')
    if (Array.isArray(value)) return value.map(one => take(one, depth + 1))
    if (value === null || typeof value !== 'object') return value
    const made: Record<string, unknown> = {}
    for (const [key, inner] of Object.entries(value)) {
      if (ANSWERED_TO.has(key)) throw refused('It has a field of a name that no form has.')
      made[words(key)] = take(inner, depth + 1)
    }
    return made
  }
  return take(input, 0)
}

function words(value: string): string {
  if (value.includes('\0') || !isWellFormed(value))
    throw refused('It has a character that no text has. Type it again instead of pasting it.')
  return value
}

/** Half of a pair of surrogates is no character of Unicode. */
const isWellFormed = (value: string): boolean => !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(value)

const refused = (detail: string) => new Problem(400, 'not-plain', 'It cannot be read', detail)
