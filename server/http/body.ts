import type { IncomingMessage } from 'node:http'
import type { H3Event } from 'h3'
import { Problem } from './problem'

/**
 * Of what is too large, this much is still read and thrown away, so that whoever sends it hears why and can go on; then
 * the line is cut.
 */
const MOST_THROWN_AWAY = 64 * 1_048_576

/** A body that comes slower than this is no body. */
const LONGEST_MS = 60_000

const tooLarge = (most: number) =>
  new Problem(413, 'too-large', 'Too large', `That is more than ${Math.round(most / 1024)} kB. Send less at a time.`)
const tooSlow = () => new Problem(408, 'too-slow', 'Too slow', 'What was sent took longer than a minute to come in. Send it again.')
const brokenOff = () => new Problem(400, 'broken-off', 'Broken off', 'The request ended before all of it was there. Send it again.')

/**
 * The raw bytes of a request, never more than the limit, however they are announced.
 *
 * @throws Problem 413, 408
 */
export async function readBytes(event: H3Event, most: number): Promise<Buffer> {
  const { req } = event.node
  if (Number(req.headers['content-length'] ?? 0) > most) {
    throwAway(req)
    throw tooLarge(most)
  }
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    let size = 0
    const end = (act: () => void) => {
      clearTimeout(timer)
      req.off('data', take).off('end', whole).off('error', broken).off('aborted', broken)
      act()
    }
    const take = (chunk: Buffer) => {
      size += chunk.length
      if (size <= most) chunks.push(chunk)
      else end(() => {
        throwAway(req)
        reject(tooLarge(most))
      })
    }
    const whole = () => end(() => resolve(Buffer.concat(chunks)))
    const broken = () => end(() => reject(brokenOff()))
    const timer = setTimeout(() => end(() => {
      req.destroy()
      reject(tooSlow())
    }), LONGEST_MS)
    req.on('data', take).on('end', whole).on('error', broken).on('aborted', broken)
  })
}

/** The next request on the same connection begins where this one ends, so its end has to be reached. */
function throwAway(req: IncomingMessage): void {
  let size = 0
  req.on('data', (chunk: Buffer) => {
    size += chunk.length
    if (size > MOST_THROWN_AWAY) req.destroy()
  }).on('error', () => {}).resume()
}

/** @throws Problem 415 if it is not sent as a file, 413 */
export async function readFile(event: H3Event, most: number): Promise<Buffer> {
  // what a form of another site could send without asking is none of these
  if (!/^(image\/|application\/octet-stream)/i.test(event.node.req.headers['content-type'] ?? '')) {
    throwAway(event.node.req)
    throw new Problem(415, 'not-a-file', 'A file wanted', 'Send the file’s bytes as they are, as image/… or application/octet-stream.')
  }
  return readBytes(event, most)
}

/** @throws Problem 415 if it is not sent as JSON, 400 if it is not JSON, 413 */
export async function readJson(event: H3Event, most: number): Promise<unknown> {
  if (!/^application\/json\b/i.test(event.node.req.headers['content-type'] ?? '')) {
    throwAway(event.node.req)
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
