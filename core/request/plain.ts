/** A text as its words are looked for in it: small letters without accents, straight apostrophes, single blanks. */
export const plainly = (text: string): string => text.toLowerCase().replaceAll('ß', 'ss').replaceAll(/[’‘`´]/g, '\'').normalize('NFD')
  .replaceAll(/\p{M}/gu, '').replaceAll(/\s+/g, ' ')

/** Its sentences, each with the mark at its end. */
export const sentencesOf = (text: string): string[] => text.match(/[^.!?؟\n]+(?:[.!?](?=\S)[^.!?؟\n]*)*[.!?؟]*/g) ?? []

const escaped = (words: string) => words.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)

/** Words joined for a regular expression that finds any of them. */
export const anyOf = (all: readonly string[]): string => all.map(escaped).join('|')

/** Whether a plain text has these words, as whole words. */
export const holds = (text: string, words: string): boolean => new RegExp(String.raw`(?<![\p{L}\d])${escaped(words)}(?![\p{L}\d])`, 'u').test(text)
export const holdsAny = (text: string, all: readonly string[]): boolean => all.some(words => holds(text, words))
