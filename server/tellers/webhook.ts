import { getHeaders, type H3Event } from 'h3'
import { readBytes } from '../http/body'
import { Problem } from '../http/problem'
import { takeOrSetAside } from './set-aside'
import type { Teller } from './tellers'

/** Longer than any event of a carrier. */
const MOST_BYTES = 65_536

interface Signed { isSigned: (rawBody: Buffer, headers: Record<string, string | undefined>) => boolean }

/**
 * Takes what a carrier or an exchange tells us by itself. It is answered only once that is committed; what is signed and
 * cannot be read is kept for an admin, so there is nothing for the teller to try again.
 *
 * @throws Problem 401 without a fresh signature; 404 for what has to be told again in a moment
 */
export async function takeTold(event: H3Event, signed: Signed, teller: Teller, now: Date): Promise<{ taken: boolean }> {
  const bytes = await readBytes(event, MOST_BYTES)
  if (!signed.isSigned(bytes, getHeaders(event)))
    throw new Problem(401, 'bad-signature', 'Not signed', 'The signature is wrong or older than five minutes, so the report is not taken.')
  const became = await takeOrSetAside(teller, parse(bytes.toString('utf8')), now)
  if (became === 'again')
    throw new Problem(404, 'no-such-call', 'No such call', 'This call is not known here yet. Tell it again in a moment.')
  return { taken: became === 'taken' }
}

/** What is no JSON is kept as the words that it is. */
function parse(words: string): unknown {
  try {
    return JSON.parse(words)
  }
  catch {
    return words
  }
}
