import { createHash, randomUUID, timingSafeEqual } from 'node:crypto'
import { createRouter, defineEventHandler, getHeader, getQuery, getRouterParam, readBody, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { crashPoint } from './crash-points'
import type { Network } from './network'
import type { Given, NumberBook } from './book'
import { PAPERS_WANTED, type Desk, type Handed } from './desk'
import { MOST_PARTS, MOST_PICTURE_BYTES, MOST_PICTURES, PRICES } from './numbers'
import { countryOfOwn, offersFor, termsIn } from './offers'
import type { PortingDesk, PortingWish } from './portings'
import { priceOf, refusalOf, type Refusal, type Wish } from './rules'
import { isTables, NO_TABLES } from './tables'
import type { SentText, World } from './world'

export interface CarrierOptions { key: string, perSecond: number }

/** Events in one answer of the list. */
const EVENTS_A_PAGE = 200

/** The carrier's interface for its customer. */
export function carrierRouter(
  world: World,
  network: Network,
  { book, desk, portings }: { book: NumberBook, desk: Desk, portings: PortingDesk },
  { key, perSecond }: CarrierOptions,
  random: () => number,
) {
  const router = createRouter()
  const limiter = new RateLimiterMemory({ points: perSecond, duration: 1 })
  const underWay = new Map<string, Promise<SentText>>()

  const authorised = (event: H3Event) => {
    const given = createHash('sha256').update(getHeader(event, 'authorization') ?? '').digest()
    return timingSafeEqual(given, createHash('sha256').update(`Bearer ${key}`).digest())
  }
  const refuse = (event: H3Event, { status, code, detail }: Refusal) => {
    setResponseStatus(event, status)
    setResponseHeader(event, 'content-type', 'application/problem+json')
    return { type: code, status, code, detail }
  }
  const guarded = (handle: (event: H3Event) => Promise<unknown> | unknown) => defineEventHandler(event =>
    authorised(event) ? handle(event) : refuse(event, { status: 401, code: 'not-authorised', detail: 'The key is not known.' }))

  router.post('/v1/texts', guarded(async (event) => {
    const idempotencyKey = getHeader(event, 'idempotency-key')
    if (!idempotencyKey) return refuse(event, { status: 400, code: 'bad-request', detail: 'Send an Idempotency-Key.' })
    const known = world.byKey.get(idempotencyKey) ?? await underWay.get(idempotencyKey)
    if (known) return answer(event, known)
    try {
      await limiter.consume('account')
    }
    catch (limit) {
      if (!(limit instanceof RateLimiterRes)) throw limit
      setResponseHeader(event, 'retry-after', String(limit.msBeforeNext / 1000) as unknown as number)
      return refuse(event, { status: 429, code: 'too-fast', detail: `At most ${perSecond} texts a second.` })
    }
    const body = await readBody<Partial<Wish>>(event)
    const wish = {
      from: String(body?.from ?? ''),
      to: String(body?.to ?? ''),
      text: String(body?.text ?? ''),
      tables: isTables(body?.tables) ? body.tables : NO_TABLES,
      pictures: wishedPictures(body?.pictures),
      confirmsOptOut: body?.confirmsOptOut === true,
    }
    const refusal = refusalOf(wish, world, book)
    if (refusal) return refuse(event, refusal)
    const id = randomUUID()
    const taken = accept(id, wish.pictures, { ...wish, ...priceOf(wish), id, key: idempotencyKey, at: Date.now() })
    underWay.set(idempotencyKey, taken)
    const text = await taken.finally(() => underWay.delete(idempotencyKey))
    network.carry(text)
    crashPoint('accepted')
    if (random() < network.faults.answerLost) event.node.req.socket.destroy()
    return answer(event, text)
  }))

  async function accept(id: string, wished: Wish['pictures'], kept: Omit<SentText, 'pictures'>): Promise<SentText> {
    const text = { ...kept, pictures: await world.pictures.keep(id, wished) }
    await world.record({ do: 'accept', text })
    return text
  }

  const answer = (event: H3Event, { id, parts, price }: SentText) => {
    setResponseStatus(event, 202)
    return { id, parts, price }
  }

  router.get(
    '/v1/prices',
    guarded(() => ({ prices: PRICES, mostParts: MOST_PARTS, mostPictures: MOST_PICTURES, mostPictureBytes: MOST_PICTURE_BYTES })),
  )

  router.get('/v1/offers', guarded((event) => {
    const { country = '', place = '', digits = '' } = getQuery<Record<string, string>>(event)
    return { offers: offersFor({ country, place, digits }, book.isTaken).map(({ number, ...offer }) => ({ e164: number, ...offer })) }
  }))

  router.get('/v1/numbers', guarded(() => ({ numbers: book.all().map(asNumber) })))

  const byNumber = (act: (number: string) => Promise<Given | null>) => guarded(async (event) => {
    const given = await act(decodeURIComponent(getRouterParam(event, 'number')!))
    return given ? asNumber(given) : refuse(event, { status: 404, code: 'no-such-number', detail: 'There is no such number.' })
  })
  /** Asked for again it is the same: nothing is taken twice. */
  router.put('/v1/numbers/:number', byNumber(book.take.bind(book)))
  router.delete('/v1/numbers/:number', byNumber(async (number) => {
    await portings.callOff(number)
    return book.end(number)
  }))
  /** A number that its customer has elsewhere; asked again while it is on its way it is the same. */
  router.put('/v1/portings/:number', guarded(async (event) => {
    const { from = '', account = '', wishedDay = '' } = await readBody<Partial<PortingWish>>(event) ?? {}
    const number = decodeURIComponent(getRouterParam(event, 'number')!)
    const porting = await portings.ask(number, { from: String(from), account: String(account), wishedDay: String(wishedDay) })
    return porting ? { number } : refuse(event, { status: 404, code: 'not-to-be-brought', detail: 'This number cannot be brought over.' })
  }))
  router.post('/v1/numbers/:number/keep', byNumber(book.keepOn.bind(book)))

  router.get('/v1/papers', guarded(() => ({ wanted: PAPERS_WANTED })))

  /** Handed in again while they are looked at they are the same. */
  router.put('/v1/papers/:country', guarded(async (event) => {
    const { papers, files } = await readBody<{ papers?: Partial<Handed>, files?: unknown[] }>(event) ?? {}
    const looked = await desk.take(getRouterParam(event, 'country')!, {
      firm: String(papers?.firm ?? ''),
      brand: String(papers?.brand ?? ''),
      agree: String(papers?.agree ?? ''),
      samples: Array.isArray(papers?.samples) ? papers.samples.map(String) : [],
      files: Array.isArray(files) ? files.length : 0,
    })
    return looked ? { ref: looked.ref } : refuse(event, { status: 404, code: 'none-wanted', detail: 'No papers are wanted for this country.' })
  }))

  router.get('/v1/pictures/:file', guarded(async (event) => {
    const bytes = await world.pictures.read(getRouterParam(event, 'file')!)
    return bytes ?? refuse(event, { status: 404, code: 'no-such-picture', detail: 'There is no such picture.' })
  }))

  router.get('/v1/events', guarded((event) => {
    const after = Number(getQuery(event).after || 0)
    const events = world.events.slice(after, after + EVENTS_A_PAGE)
    return { events, cursor: String(after + events.length) }
  }))

  return router
}

const asNumber = ({ number, state, until }: Given) => {
  const country = countryOfOwn(number)
  return { e164: number, country, state, until: new Date(until).toISOString(), rent: termsIn(country).rent }
}

const wishedPictures = (given: unknown): Wish['pictures'] => Array.isArray(given)
  ? given.map(one => ({ type: String(one?.type), base64: String(one?.base64) }))
  : []
