import { number, object, string } from 'yup'
import type { HttpSettings } from '~~/shared/carriers'
import type { Carrier, CarrierState, CarrierText, HandOverAnswer } from '../port'
import { neverConnected, signatureCheck } from '../signature'
import { askGateway, type Access, type Answer } from './ask'
import { priceShape, readTold } from './told'

const LEAST_PAUSE_MS = 1_000

const acceptedShape = object({
  id: string().max(100).required(),
  parts: number().integer().min(1).max(100).nullable().default(null),
  price: priceShape.nullable().default(null),
})

export interface HttpAccount { name: string, title: string, settings: HttpSettings, secret: string }

/** A gateway that takes signed texts over HTTP, and tells us by itself what becomes of them (docs/gateway.md). */
export function httpCarrier({ name, title, settings, secret }: HttpAccount): Carrier {
  const access: Access = { ...settings, secret }
  let state: CarrierState | null = null
  /** Whether it answers is known from the last time that it was asked. */
  function heed(is: CarrierState['is'], why: string | null): void {
    if (state?.is !== is || state.why !== why) state = { is, since: state?.is === is ? state.since : Date.now(), why }
  }

  return {
    name,
    title,
    async hand(text) {
      const answer = await handOver(access, text)
      const isAway = answer.kind === 'try-later'
      heed(isAway ? 'away' : 'connected', isAway ? sayAway(answer) : null)
      return answer
    },
    readEvent: readTold,
    webhook: { isSigned: signatureCheck(secret) },
    state: () => state,
  }
}

const sayAway = ({ certain }: { certain: boolean }) => certain ? 'It cannot be reached, or takes nothing now.' : 'It takes texts, and its answers get lost.'

async function handOver(access: Access, { key, from, to, text, confirmsOptOut, pictures }: CarrierText): Promise<HandOverAnswer> {
  if (pictures.length > 0) return { kind: 'refused', code: 'pictures-not-allowed' }
  try {
    return readAnswer(await askGateway(access, { id: key, type: 'text', data: { key, from, to, text, confirmsOptOut } }))
  }
  catch (error) {
    const certain = neverConnected(error)
    return { kind: 'try-later', afterMs: null, certain, code: certain ? 'carrier-unreachable' : 'answer-lost' }
  }
}

/** The key makes asking again the same as asking once: whatever is unclear is asked again. */
function readAnswer({ status, retryAfterMs, body }: Answer): HandOverAnswer {
  if (status >= 200 && status < 300) {
    const { id, parts, price } = acceptedShape.validateSync(body)
    return { kind: 'accepted', ref: id, charge: parts && price ? { parts, costMicros: price.micros, currency: price.currency } : null }
  }
  if (status === 429) return { kind: 'no-room', afterMs: retryAfterMs ?? LEAST_PAUSE_MS }
  if (status === 503) return { kind: 'try-later', afterMs: retryAfterMs, certain: true, code: 'carrier-unreachable' }
  if (status === 401 || status === 403) return { kind: 'refused', code: 'not-authorised' }
  if (status === 408 || status >= 500) return { kind: 'try-later', afterMs: retryAfterMs, certain: false, code: 'answer-lost' }
  const code = (body as { code?: unknown } | null)?.code
  return { kind: 'refused', code: typeof code === 'string' && code.length <= 60 ? code : 'bad-request' }
}
