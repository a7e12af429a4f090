/**
 * An answer's bytes, of which there may be so many: a stranger does not fill our memory.
 *
 * @returns null for one that is longer
 */
export async function readAtMost(response: Response, most: number): Promise<Buffer | null> {
  const pieces: Uint8Array[] = []
  let size = 0
  if (!response.body) return Buffer.alloc(0)
  for await (const piece of response.body as unknown as AsyncIterable<Uint8Array>) {
    size += piece.length
    if (size > most) return null
    pieces.push(piece)
  }
  return Buffer.concat(pieces)
}
