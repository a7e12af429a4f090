import { createRouter, defineEventHandler, getHeader, getQuery, getRouterParam, readBody, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { LINES } from '../carrier/numbers'
import type { Exchange } from './exchange'

/** Events in one answer of the list. */
const EVENTS_A_PAGE = 200

/** The exchange's interface for its customer. */
export function exchangeRouter(exchange: Exchange, key: string) {
  const router = createRouter()
  const refuse = (event: H3Event, status: number, code: string, detail: string) => {
    setResponseStatus(event, status)
    return { type: code, status, code, detail }
  }
  const guarded = (handle: (event: H3Event) => Promise<unknown> | unknown) => defineEventHandler(event =>
    getHeader(event, 'authorization') === `Bearer ${key}` ? handle(event) : refuse(event, 401, 'not-authorised', 'The key is not known.'))

  router.post('/v1/calls', guarded(async (event) => {
    const idempotencyKey = getHeader(event, 'idempotency-key')
    if (!idempotencyKey) return refuse(event, 400, 'bad-request', 'Send an Idempotency-Key.')
    const { from = '', to = '', record = false } = await readBody<{ from?: string, to?: string, record?: boolean }>(event) ?? {}
    if (!LINES.some(line => line.number === from)) return refuse(event, 422, 'sender-unknown', 'This account has no such number.')
    if (!/^\+[1-9]\d{6,14}$/.test(to)) return refuse(event, 422, 'recipient-unknown', 'The number is not in E.164.')
    const { id } = await exchange.dial(idempotencyKey, from, to, record)
    setResponseStatus(event, 201)
    return { id }
  }))

  router.post('/v1/calls/:id/:order', guarded(async (event) => {
    const call = exchange.calls.get(getRouterParam(event, 'id')!)
    if (!call) return refuse(event, 404, 'no-such-call', 'There is no such call.')
    const orders: Record<string, () => Promise<boolean>> = {
      'hang-up': () => exchange.end(call, 'hung-up', 'us'),
      'decline': () => exchange.end(call, 'declined', 'us'),
      'answer': () => exchange.answer(call, 'person'),
      'hold': () => exchange.turn(call, 'hold', true),
      'resume': () => exchange.turn(call, 'hold', false),
      'mute': () => exchange.turn(call, 'mute', true),
      'unmute': () => exchange.turn(call, 'mute', false),
      'record': () => exchange.turn(call, 'record', true),
      'stop-recording': () => exchange.turn(call, 'record', false),
      'take-message': () => exchange.takeMessage(call),
    }
    const done = await orders[getRouterParam(event, 'order')!]?.()
    if (done === undefined) return refuse(event, 404, 'no-such-order', 'A call cannot be told that.')
    return done ? { done } : refuse(event, 409, 'not-now', 'The call is not in a state for that.')
  }))

  router.get('/v1/calls/:id/recording', guarded((event) => {
    const sound = exchange.soundOf(getRouterParam(event, 'id')!)
    if (!sound) return refuse(event, 404, 'no-recording', 'Nothing was recorded of such a call.')
    setResponseHeader(event, 'content-type', 'audio/wav')
    return sound
  }))

  router.get('/v1/call-events', guarded((event) => {
    const after = Number(getQuery(event).after || 0)
    const events = exchange.events.slice(after, after + EVENTS_A_PAGE)
    return { events, cursor: String(after + events.length) }
  }))

  return router
}
