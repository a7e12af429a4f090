import { sql, type SQL } from 'drizzle-orm'

/**
 * Whether all of these words stand in what `t` says, the last one perhaps half typed; written as its index is.
 *
 * @returns null where there are no words in it
 */
export function wordsMatch(words: string): SQL | null {
  const all = words.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []
  if (all.length === 0) return null
  const query = all.map((word, i) => i === all.length - 1 ? `${word}:*` : word).join(' & ')
  return sql`to_tsvector('simple', coalesce(t.words, '')) @@ to_tsquery('simple', ${query})`
}
