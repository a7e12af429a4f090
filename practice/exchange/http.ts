import {
  createRouter,
  defineEventHandler,
  getHeader,
  getQuery,
  getRouterParam,
  readBody,
  readRawBody,
  setResponseHeader,
  setResponseStatus,
  type H3Event,
} from 'h3'
import type { NumberBook } from '../carrier/book'
import type { Call } from './call'
import type { Exchange } from './exchange'

/** Events in one answer of the list. */
const EVENTS_A_PAGE = 200

/** The exchange's interface for its customer. */
export function exchangeRouter(exchange: Exchange, book: NumberBook, key: string) {
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
    const {
      from = '',
      to = '',
      record = false,
      ring_first: own = [],
      desk,
    } = (await readBody<{ from?: string, to?: string, record?: boolean, ring_first?: string[], desk?: string }>(event)) ?? {}
    if (!book.works(from)) return refuse(event, 422, 'sender-unknown', 'This account has no such number.')
    if (![to, ...own].every(number => /^\+[1-9]\d{6,14}$/.test(number)))
      return refuse(event, 422, 'recipient-unknown', 'The number is not in E.164.')
    if (exchange.isNever(idempotencyKey)) return refuse(event, 409, 'never', 'This call was not to be made any more.')
    const { id } = await exchange.dial(idempotencyKey, from, to, { record, own, desk })
    setResponseStatus(event, 201)
    return { id }
  }))

  // for whoever does not know whether a call was taken: it is there, or it will never be
  router.post('/v1/calls/never', guarded(async (event) => {
    const { key = '' } = await readBody<{ key?: string }>(event) ?? {}
    const call = await exchange.never(key)
    if (!call) return { never: true }
    setResponseStatus(event, 409)
    return { id: call.id }
  }))

  const answerTo = (event: H3Event, done: boolean) =>
    done ? { done } : refuse(event, 409, 'not-now', 'The call is not in a state for that.')
  const withCall = (handle: (event: H3Event, call: Call) => Promise<unknown> | unknown) => guarded((event) => {
    const call = exchange.calls.get(getRouterParam(event, 'id')!)
    return call ? handle(event, call) : refuse(event, 404, 'no-such-call', 'There is no such call.')
  })

  router.post('/v1/calls/:id/tones', withCall(async (event, call) => {
    const { tones = '' } = await readBody<{ tones?: string }>(event) ?? {}
    return /^[0-9*#]{1,32}$/.test(tones)
      ? answerTo(event, exchange.sendTones(call, tones))
      : refuse(event, 422, 'no-tones', 'Tones are digits, * and #.')
  }))

  router.post('/v1/calls/:id/desks', withCall(async (event, call) => {
    const { desk = '', on = true } = await readBody<{ desk?: string, on?: boolean }>(event) ?? {}
    return desk ? answerTo(event, exchange.seat(call, desk, on)) : refuse(event, 422, 'no-desk', 'Name the desk.')
  }))

  router.post('/v1/calls/:id/ring-along', withCall(async (event, call) => {
    const { phones = [], record = false } = await readBody<{ phones?: { number: string, desk: string }[], record?: boolean }>(event) ?? {}
    return phones.every(({ number, desk }) => /^\+[1-9]\d{6,14}$/.test(number) && desk)
      ? answerTo(event, exchange.ringAlong(call, phones, record))
      : refuse(event, 422, 'no-phones', 'Give each telephone with its number in E.164 and its desk.')
  }))

  router.post(
    '/v1/calls/:id/message',
    withCall(async (event, call) => answerTo(event, await exchange.leave(call, (await readRawBody(event, false)) ?? Buffer.alloc(0)))),
  )

  router.post('/v1/calls/:id/take-message', withCall(async (event, call) => {
    const { greeting = '' } = await readBody<{ greeting?: string }>(event) ?? {}
    return answerTo(event, await exchange.takeMessage(call, greeting))
  }))

  router.post('/v1/calls/:id/:order', withCall(async (event, call) => {
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
    }
    const done = await orders[getRouterParam(event, 'order')!]?.()
    if (done === undefined) return refuse(event, 404, 'no-such-order', 'A call cannot be told that.')
    return answerTo(event, done)
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
