/** A piece of a text: words, or an address of the web that was written in them. */
export interface Piece { words: string, href: string | null }

/** Whether there may be any: most texts have none, and need no library to know it. */
export const mayHaveLinks = (words: string): boolean => /https?:\/\/|www\.|\w\.\w/i.test(words)

/** Words with the web addresses that stand in them. Nothing else is opened from a text: no script, no file, no mail. */
export async function linksIn(words: string): Promise<Piece[]> {
  const { LinkifyIt } = await import('linkify-it')
  const finder = new LinkifyIt({ fuzzyLink: true, fuzzyEmail: false, fuzzyIP: false })
    // kept for examples (RFC 2606), as those of the demo are
    .tlds('example', true)
  const pieces: Piece[] = []
  let from = 0
  for (const { index, lastIndex, url } of finder.match(words) ?? []) {
    if (!/^https?:\/\//i.test(url)) continue
    if (index > from) pieces.push({ words: words.slice(from, index), href: null })
    pieces.push({ words: words.slice(index, lastIndex), href: url })
    from = lastIndex
  }
  if (from < words.length) pieces.push({ words: words.slice(from), href: null })
  return pieces
}
