import { Webhook } from 'standardwebhooks'
import { readAtMost } from '../../http/read-at-most'

/** Longer than a gateway thinks, shorter than a lease. */
const TIMEOUT_MS = 10_000

/** More than any answer says. */
const MOST_BYTES = 65_536

export interface Access { url: string, secret: string }

/** What a gateway has answered: its status, when it may be asked again, and what it said, if that was JSON. */
export interface Answer { status: number, retryAfterMs: number | null, body: unknown }

/**
 * Asks a gateway, signed as the Standard Webhooks specification says. The same id is the same question.
 *
 * @throws what fetch throws where nobody answers
 */
export async function askGateway({ url, secret }: Access, { id, type, data }: { id: string, type: string, data: object }): Promise<Answer> {
  const at = new Date()
  const body = JSON.stringify({ id, type, at: at.toISOString(), data })
  const response = await fetch(url, {
    method: 'POST',
    body,
    headers: {
      'content-type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': new Webhook(secret).sign(id, at, body),
    },
    signal: AbortSignal.timeout(TIMEOUT_MS),
    redirect: 'error',
  })
  const said = await readAtMost(response, MOST_BYTES)
  return { status: response.status, retryAfterMs: retryAfterOf(response), body: parse(said?.toString('utf8') ?? '') }
}

/** In whole seconds, as RFC 9110 has it; a date is read by nobody here. */
function retryAfterOf(response: Response): number | null {
  const seconds = Number(response.headers.get('retry-after') ?? Number.NaN)
  return Number.isFinite(seconds) && seconds >= 0 ? seconds * 1_000 : null
}

function parse(words: string): unknown {
  try {
    return JSON.parse(words)
  }
  catch {
    return null
  }
}
