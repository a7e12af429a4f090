/** Letters that Unicode does not take apart into a letter and its mark. */
const WHOLE: [letter: string, plain: string][] = [['ß', 'ss'], ['æ', 'ae'], ['œ', 'oe'], ['ø', 'o'], ['đ', 'd'], ['ð', 'd'], ['ł', 'l'], ['þ', 'th'], ['ı', 'i']]

/** Umlauts, and what replaces them where a keyboard has none (common practice). */
const SPELT_OUT: [letter: string, spelt: string][] = [['ä', 'ae'], ['ö', 'oe'], ['ü', 'ue'], ['å', 'aa'], ['ø', 'oe']]

const replaced = (words: string, pairs: [string, string][]) => pairs.reduce((text, [from, to]) => text.replaceAll(from, to), words)

/**
 * Words as somebody types them who does not care for accents: small letters without marks. The database does the same
 * (`plain_words`, in its migrations), and a test holds the two alike.
 */
export const plainWords = (words: string): string =>
  replaced(words.normalize('NFC').toLowerCase(), WHOLE).normalize('NFD').replace(/[\u0300-\u036f]/g, '')

/** All spellings by which a word is looked for: without marks, and with umlauts spelt out where it has some. */
export function spellingsOf(word: string): string[] {
  const spelt = plainWords(replaced(word.normalize('NFC').toLowerCase(), SPELT_OUT))
  return [...new Set([plainWords(word), spelt])]
}
