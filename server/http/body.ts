import type { H3Event } from 'h3'
import { Problem } from './problem'

const tooLarge = (most: number) => new Problem(413, 'too-large', 'Too large', `That is more than ${Math.round(most / 1024)} kB. Send less at a time.`)

/**
 * The raw bytes of a request, never more than the limit, however they are announced.
 *
 * @throws Problem 413
 */
export async function readBytes(event: H3Event, most: number): Promise<Buffer> {
  if (Number(event.node.req.headers['content-length'] ?? 0) > most) throw tooLarge(most)
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > most) throw tooLarge(most)
    chunks.push(chunk)
  }
  return Buffer.concat(chunks)
}

/** @throws Problem 415 if it is not sent as a file, 413 */
export async function readFile(event: H3Event, most: number): Promise<Buffer> {
  // what a form of another site could send without asking is none of these
  if (!/^(image\/|application\/octet-stream)/i.test(event.node.req.headers['content-type'] ?? '')) {
    throw new Problem(415, 'not-a-file', 'A file wanted', 'Send the picture’s bytes as they are, as image/… or application/octet-stream.')
  }
  return readBytes(event, most)
}

/** @throws Problem 415 if it is not sent as JSON, 400 if it is not JSON, 413 */
export async function readJson(event: H3Event, most: number): Promise<unknown> {
  if (!/^application\/json\b/i.test(event.node.req.headers['content-type'] ?? '')) {
    throw new Problem(415, 'not-json', 'JSON wanted', 'Send the request as application/json.')
  }
  const bytes = await readBytes(event, most)
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  }
  catch {
    throw new Problem(400, 'bad-json', 'Not JSON', 'The request could not be read as JSON in UTF-8.')
  }
}
