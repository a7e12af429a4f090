/**
 * The short reference of a message, to be read over the telephone: seven characters and one that checks
 * them, in Crockford's Base32 (Douglas Crockford, "Base 32": letters that are mistaken for digits stand for
 * these, and the check is the number modulo 37). Numbers whose check would be one of the five signs that
 * nobody can say are passed over.
 */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
const LENGTH = 7
const CHECK = 37

/**
 * A new reference.
 *
 * @param random gives 32 random bits as a whole number
 */
export function newRef(random: () => number): string {
  for (;;) {
    // 35 bits: among a million messages one in thirty thousand meets one that is there
    const number = (random() % 2 ** 17) * 2 ** 18 + (random() % 2 ** 18)
    const check = ALPHABET[number % CHECK]
    if (check) return digitsOf(number) + check
  }
}

function digitsOf(number: number): string {
  let digits = ''
  for (let rest = number, i = 0; i < LENGTH; i++, rest = Math.floor(rest / 32)) digits = ALPHABET[rest % 32]! + digits
  return digits
}

export type RefReading = { ok: true, ref: string } | { ok: false, reason: 'no-ref' | 'mistyped' }

/**
 * Reads a reference as somebody typed or heard it: with or without the hyphen, small letters, O for 0, I and L for 1.
 * Of eight letters without one of these it may as well be a word, and a wrong one is called no reference at all.
 */
export function readRef(typed: string): RefReading {
  const plain = typed.trim().toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1')
  if (plain.length !== LENGTH + 1 || !/^[0-9A-Z]+$/.test(plain)) return { ok: false, reason: 'no-ref' }
  const meant = /^.{4}-.{4}$/.test(typed.trim()) || (/\d/.test(typed) && /[a-z]/i.test(typed))
  const values = [...plain].map(character => ALPHABET.indexOf(character))
  const number = values.slice(0, LENGTH).reduce((sum, value) => sum * 32 + value, 0)
  if (!values.includes(-1) && number % CHECK === values[LENGTH]) return { ok: true, ref: plain }
  return { ok: false, reason: meant ? 'mistyped' : 'no-ref' }
}

/** In two groups of four, as it is shown and said: 4K7P-2M9X. */
export const showRef = (ref: string): string => `${ref.slice(0, 4)}-${ref.slice(4)}`
