import { boolean, date, number, object, string, type InferType } from 'yup'
import { CALL_ENDS, SIDES, SWITCHES, type CallEvent } from '~~/core/call/facts'
import type { PracticeAccess } from '../carriers/practice'
import { neverConnected, signatureCheck } from '../carriers/signature'
import type { Exchange, ExchangeEvent, OrderAnswer } from './port'

const TIMEOUT_MS = 5_000

const eventShape = object({
  id: string().max(100).required(),
  type: string()
    .oneOf([
      'call.incoming',
      'call.own-ringing',
      'call.own-answered',
      'call.ringing',
      'call.taken',
      'call.answered',
      'call.switched',
      'call.leaving',
      'call.left',
      'call.ended',
      'call.recorded',
      'call.charged',
    ] as const)
    .required(),
  at: date().required(),
  data: object({
    id: string().max(100).required(),
    key: string().max(100).nullable().default(null),
    line: string().max(20).required(),
    phone: string().max(20).required(),
    by: string()
      .oneOf(['person', 'machine'] as const)
      .default('person'),
    what: string().oneOf(SWITCHES).default('hold'),
    on: boolean().default(false),
    why: string().oneOf(CALL_ENDS).default('network'),
    side: string().oneOf(SIDES).default('network'),
    desk: string().max(100).default(''),
    price: object({ micros: number().integer().min(0).required(), currency: string().length(3).required() }).nullable().default(null),
    of: string()
      .oneOf(['call', 'message'] as const)
      .default('call'),
  }).required(),
})
type EventShape = InferType<typeof eventShape>

/** The practice exchange, over its HTTP interface. */
export function practiceExchange({ url, key, webhookSecret }: PracticeAccess): Exchange {
  const ask = (path: string, body: object | Buffer, headers: Record<string, string> = {}) => fetch(new URL(path, url), {
    method: 'POST',
    body: Buffer.isBuffer(body) ? new Uint8Array(body) : JSON.stringify(body),
    headers: { 'authorization': `Bearer ${key}`, 'content-type': Buffer.isBuffer(body) ? 'audio/wav' : 'application/json', ...headers },
    signal: AbortSignal.timeout(TIMEOUT_MS),
    redirect: 'error',
  })
  const tell = async (ref: string, what: string, body: object | Buffer = {}): Promise<OrderAnswer> => {
    try {
      const { status } = await ask(`/v1/calls/${encodeURIComponent(ref)}/${what}`, body)
      return status < 300 ? 'done' : status === 404 ? 'gone' : 'not-now'
    }
    catch {
      return 'unreachable'
    }
  }
  return {
    name: 'practice',
    async dial({ key: callKey, from, to, record, ringFirst, desk }) {
      try {
        const response = await ask('/v1/calls', { from, to, record, ring_first: ringFirst, desk }, { 'idempotency-key': callKey })
        const body = await response.json() as { id?: string, code?: string }
        return response.ok && body.id ? { kind: 'dialling', ref: body.id } : { kind: 'refused', code: body.code ?? 'bad-request' }
      }
      catch (error) {
        return { kind: neverConnected(error) ? 'unreachable' : 'not-known' }
      }
    },
    async whatBecameOf(callKey) {
      try {
        const response = await ask('/v1/calls/never', { key: callKey })
        const body = await response.json() as { id?: string }
        if (response.status === 409 && body.id) return { kind: 'dialling', ref: body.id }
        return { kind: response.ok ? 'never' : 'unreachable' }
      }
      catch {
        return { kind: 'unreachable' }
      }
    },
    order: tell,
    takeMessage: (ref, greeting) => tell(ref, 'take-message', { greeting }),
    seat: (ref, desk, on) => tell(ref, 'desks', { desk, on }),
    ringAlong: (ref, phones, record) => tell(ref, 'ring-along', { phones, record }),
    tones: (ref, tones) => tell(ref, 'tones', { tones }),
    leave: (ref, sound) => tell(ref, 'message', sound),
    async eventsSince(cursor) {
      const response = await fetch(new URL(`/v1/call-events?after=${encodeURIComponent(cursor)}`, url), {
        headers: { authorization: `Bearer ${key}` },
        signal: AbortSignal.timeout(TIMEOUT_MS),
        redirect: 'error',
      })
      if (!response.ok) throw new Error(`The practice exchange answered ${response.status} when asked for its events.`)
      const { events, cursor: next } = await response.json() as { events: unknown[], cursor: string }
      return { told: events, cursor: next }
    },
    async recordingOf(ref) {
      const response = await fetch(new URL(`/v1/calls/${encodeURIComponent(ref)}/recording`, url), {
        headers: { authorization: `Bearer ${key}` },
        signal: AbortSignal.timeout(4 * TIMEOUT_MS),
        redirect: 'error',
      })
      if (response.status === 404) return null
      if (!response.ok) throw new Error(`The practice exchange answered ${response.status} when asked for a recording.`)
      return Buffer.from(await response.arrayBuffer())
    },
    isSigned: signatureCheck(webhookSecret),
    readEvent,
  }
}

function readEvent(input: unknown): ExchangeEvent {
  const { id, type, at, data }: EventShape = eventShape.validateSync(input)
  const call = { id, ref: data.id, key: data.key }
  if (type === 'call.incoming') return { ...call, kind: 'incoming', at, line: data.line, remote: data.phone }
  if (type === 'call.taken') return { ...call, kind: 'taken', desk: data.desk }
  if (type === 'call.recorded') return { ...call, kind: 'recorded', of: data.of }
  if (type === 'call.charged') return { ...call, kind: 'charged', at, charge: data.price ?? { micros: 0, currency: 'USD' } }
  return { ...call, kind: 'happened', event: happened(type, at.getTime(), data) }
}

function happened(
  type: Exclude<EventShape['type'], 'call.incoming' | 'call.recorded' | 'call.taken' | 'call.charged'>,
  at: number,
  { by, what, on, why, side }: EventShape['data'],
): CallEvent {
  switch (type) {
    case 'call.own-ringing':
      return { kind: 'own-ringing', at }
    case 'call.own-answered':
      return { kind: 'own-answered', at }
    case 'call.leaving':
      return { kind: 'leaving', at }
    case 'call.left':
      return { kind: 'left', at }
    case 'call.ringing':
      return { kind: 'ringing', at }
    case 'call.answered':
      return { kind: 'answered', at, by }
    case 'call.switched':
      return { kind: 'switched', at, what, on }
    case 'call.ended':
      return { kind: 'ended', at, why, side }
  }
}
