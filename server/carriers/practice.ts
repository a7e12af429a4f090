import { array, date, number, object, string, type InferType } from 'yup'
import { NUMBER_STATES } from '~~/core/lines/life'
import type { PortingWord } from '~~/core/lines/porting'
import type { PapersWord } from '~~/core/papers/papers'
import { NATIONAL_TABLES, readShift, type Shift } from '~~/core/text/national'
import { neverConnected, signatureCheck } from './signature'
import { readAtMost } from '../http/read-at-most'
import { MOST_BYTES_IN } from '~~/shared/pictures'
import type { Carrier, CarrierEvent, CarrierNumber, CarrierPrices, HandOverAnswer, NumberOffer } from './port'

/** By which lines and texts name it. */
export const PRACTICE = 'practice'

/** Longer than the practice carrier ever takes to think, shorter than a lease. */
const TIMEOUT_MS = 8_000

/** More pictures in one text than this are none that a telephone sends. */
const MOST_PICTURES_IN = 10

export interface PracticeAccess { url: string, key: string, webhookSecret: string }

const moneyShape = object({ micros: number().integer().required(), currency: string().length(3).required() })

const numberShape = object({
  e164: string().matches(/^\+[1-9]\d{6,14}$/).required(),
  country: string().length(2).required(),
  state: string().oneOf(NUMBER_STATES).required(),
  until: date().required(),
  rent: moneyShape.required(),
})

/** What became of a number; what it is then follows from it. */
const numberEventShape = object({
  id: string().max(100).required(),
  type: string().oneOf(['number.given', 'number.rented', 'number.ended'] as const).required(),
  at: date().required(),
  data: object({ number: string().matches(/^\+[1-9]\d{6,14}$/).required(), until: date().required(), price: moneyShape.nullable().default(null) }).required(),
})

const eventShape = object({
  id: string().max(100).required(),
  type: string().oneOf(['text.sent', 'text.delivered', 'text.undelivered', 'text.received'] as const).required(),
  at: date().required(),
  data: object({
    id: string().max(100).required(),
    key: string().max(100).nullable().default(null),
    code: string().max(60).nullable().default(null),
    from: string().max(20).default(''),
    to: string().max(20).default(''),
    text: string().max(40_000).default(''),
    pictures: array(object({ file: string().max(200).required() })).max(MOST_PICTURES_IN).default([]),
  }).required(),
})
type EventShape = InferType<typeof eventShape>

const acceptedShape = object({
  id: string().required(),
  parts: number().integer().required(),
  price: object({ micros: number().integer().required(), currency: string().required() }).required(),
})

const portingEventShape = object({
  id: string().max(100).required(),
  type: string().oneOf(['porting.agreed', 'porting.sent-back'] as const).required(),
  at: date().required(),
  data: object({
    number: string().matches(/^\+[1-9]\d{6,14}$/).required(),
    day: string().matches(/^(\d{4}-\d\d-\d\d)?$/).default(''),
    words: string().max(2_000).default(''),
  }).required(),
})

const days = () => number().integer().min(0).max(365).required()
const wantedShape = object({
  wanted: array(object({ country: string().length(2).required(), leastDays: days(), mostDays: days() })).max(250).required(),
})
const handedShape = object({ ref: string().max(80).required() })
const papersEventShape = object({
  id: string().max(100).required(),
  type: string().oneOf(['papers.accepted', 'papers.asked-back', 'papers.refused'] as const).required(),
  at: date().required(),
  data: object({ country: string().length(2).required(), words: string().max(2_000).default('') }).required(),
})

/** The practice carrier, over its HTTP interface. */
export function practiceCarrier({ url, key, webhookSecret }: PracticeAccess): Carrier {
  const ask = (path: string, init: RequestInit = {}) => fetch(new URL(path, url), {
    ...init,
    headers: { 'authorization': `Bearer ${key}`, 'content-type': 'application/json', ...init.headers },
    signal: AbortSignal.timeout(TIMEOUT_MS),
    redirect: 'error',
  })

  return {
    name: PRACTICE,
    title: 'The practice carrier',
    async hand(text) {
      let response: Response
      try {
        response = await ask('/v1/texts', {
          method: 'POST',
          headers: { 'idempotency-key': text.key },
          body: JSON.stringify({
            from: text.from,
            to: text.to,
            text: text.text,
            tables: tablesOf(text.shift),
            pictures: text.pictures.map(({ type, bytes }) => ({ type, base64: bytes.toString('base64') })),
            confirmsOptOut: text.confirmsOptOut,
          }),
        })
        return await readAnswer(response)
      }
      catch (error) {
        const certain = neverConnected(error)
        return { kind: 'try-later', afterMs: null, certain, code: certain ? 'carrier-unreachable' : 'answer-lost' }
      }
    },
    webhook: { isSigned: signatureCheck(webhookSecret) },
    readEvent,
    async eventsSince(cursor) {
      const response = await ask(`/v1/events?after=${encodeURIComponent(cursor)}`)
      if (!response.ok) throw new Error(`The practice carrier answered ${response.status} when asked for its events.`)
      const { events, cursor: next } = await response.json() as { events: unknown[], cursor: string }
      return { told: events, cursor: next }
    },
    async pictureOf(name) {
      const response = await ask(`/v1/pictures/${encodeURIComponent(name)}`)
      if (response.status === 404) return null
      if (!response.ok) throw new Error(`The practice carrier answered ${response.status} when asked for a picture.`)
      return readAtMost(response, MOST_BYTES_IN)
    },
    async prices() {
      const response = await ask('/v1/prices')
      if (!response.ok) throw new Error(`The practice carrier answered ${response.status} when asked for its prices.`)
      return await response.json() as CarrierPrices
    },
    rental: {
      async numbers() {
        const { numbers } = await mustAnswer<{ numbers: unknown[] }>(await ask('/v1/numbers'), 'its numbers')
        return numbers.map(one => numberShape.validateSync(one))
      },
      async offers(wish) {
        const { offers } = await mustAnswer<{ offers: NumberOffer[] }>(await ask(`/v1/offers?${new URLSearchParams(wish)}`), 'what it has to offer')
        return offers
      },
      take: e164 => askOf(e164, '', 'PUT'),
      end: e164 => askOf(e164, '', 'DELETE'),
      keep: e164 => askOf(e164, '/keep', 'POST'),
      async bring(e164, wish) {
        const response = await ask(`/v1/portings/${encodeURIComponent(e164)}`, { method: 'PUT', body: JSON.stringify(wish) })
        if (response.status === 404) return false
        await mustAnswer(response, `the number ${e164}`)
        return true
      },
    },
    papers: {
      async wants() {
        return wantedShape.validateSync(await mustAnswer(await ask('/v1/papers'), 'the papers that it wants')).wanted
      },
      async handIn(country, papers, files) {
        const body = JSON.stringify({ papers, files: files.map(({ name, type, bytes }) => ({ name, type, base64: bytes.toString('base64') })) })
        return handedShape.validateSync(await mustAnswer(await ask(`/v1/papers/${country}`, { method: 'PUT', body }), 'papers'))
      },
    },
  }

  async function askOf(e164: string, step: string, method: string): Promise<CarrierNumber | null> {
    const response = await ask(`/v1/numbers/${encodeURIComponent(e164)}${step}`, { method })
    return response.status === 404 ? null : numberShape.validateSync(await mustAnswer(response, `the number ${e164}`))
  }
}

async function mustAnswer<T>(response: Response, about: string): Promise<T> {
  if (!response.ok) throw new Error(`The practice carrier answered ${response.status} when asked for ${about}.`)
  return await response.json() as T
}

async function readAnswer(response: Response): Promise<HandOverAnswer> {
  const body: unknown = await response.json()
  if (response.ok) {
    const { id, parts, price } = await acceptedShape.validate(body)
    return { kind: 'accepted', ref: id, charge: { parts, costMicros: price.micros, currency: price.currency } }
  }
  const code = (body as { code?: string }).code ?? 'bad-request'
  const afterMs = Number(response.headers.get('retry-after') ?? 1) * 1000
  if (response.status === 429) return { kind: 'no-room', afterMs }
  if (response.status === 503) return { kind: 'try-later', afterMs, certain: true, code: 'carrier-unreachable' }
  if (response.status >= 500) return { kind: 'try-later', afterMs: null, certain: false, code: 'answer-lost' }
  return { kind: 'refused', code: response.status === 401 ? 'not-authorised' : code }
}

/** A NUL is no character of any alphabet, and no database keeps it: one stands in for it that says so. */
function readEvent(input: unknown): CarrierEvent {
  const what = String((input as { type?: unknown } | null)?.type)
  if (what.startsWith('number.')) return readNumberEvent(input)
  if (what.startsWith('porting.')) return readPortingEvent(input)
  if (what.startsWith('papers.')) return readPapersEvent(input)
  const { id, type, at, data }: EventShape = eventShape.validateSync(input)
  if (type === 'text.received')
    return { id, at, kind: 'received', ref: data.id, from: data.from, to: data.to, text: data.text.replaceAll('\0', '\uFFFD'), pictures: data.pictures.map(({ file }) => file) }
  return { id, at, kind: type.slice('text.'.length) as 'sent', ref: data.id, key: data.key, code: data.code }
}

function readNumberEvent(input: unknown): CarrierEvent {
  const { id, type, at, data } = numberEventShape.validateSync(input)
  return { id, at, kind: 'number', e164: data.number, state: type === 'number.ended' ? 'ended' : 'given', until: data.until, charge: data.price }
}

function readPortingEvent(input: unknown): CarrierEvent {
  const { id, type, at, data } = portingEventShape.validateSync(input)
  return { id, at, kind: 'porting', e164: data.number, word: type.slice('porting.'.length) as PortingWord, day: data.day || null, words: data.words }
}

function readPapersEvent(input: unknown): CarrierEvent {
  const { id, type, at, data } = papersEventShape.validateSync(input)
  return { id, at, kind: 'papers', country: data.country, word: type.slice('papers.'.length) as PapersWord, words: data.words }
}

/** The tables by the numbers that a header gives them; none are zeros. */
function tablesOf(shift: Shift | null): { single: number, locking: number } {
  if (!shift) return { single: 0, locking: 0 }
  const { language, single, locking } = readShift(shift)
  const { id } = NATIONAL_TABLES[language]
  return { single: single ? id : 0, locking: locking ? id : 0 }
}
