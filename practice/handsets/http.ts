import { existsSync, readFileSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import {
  createEventStream,
  createRouter,
  defineEventHandler,
  getHeader,
  getQuery,
  getRouterParam,
  readBody,
  setResponseHeader,
  setResponseStatus,
} from 'h3'
import type { NumberBook } from '../carrier/book'
import type { Desk } from '../carrier/desk'
import type { PortingDesk } from '../carrier/portings'
import type { Network } from '../carrier/network'
import { isPictureType } from '../carrier/pictures'
import type { World } from '../carrier/world'
import type { Exchange } from '../exchange/exchange'
import { MANNERS, type Manner } from '../exchange/manners'
import { GATEWAY_LINES, type Gateway } from '../gateway/gateway'
import { SMSC_LINES, type Smsc } from '../smsc/smsc'

const FILES: Record<string, string> = { 'page.js': 'text/javascript', 'page.css': 'text/css' }

/** Where the carrier keeps what it has given and been given. */
interface Office { book: NumberBook, desk: Desk, portings: PortingDesk }

/** Who carries texts besides the carrier, to and from numbers of their own. */
interface Others { smsc: Smsc, gateway: Gateway }

/** The page on which one is the other person, and what it needs. */
export function handsetRouter(
  world: World,
  network: Network,
  { book, desk, portings }: Office,
  { smsc, gateway }: Others,
  exchange: Exchange,
  folder: string,
) {
  const router = createRouter()
  const built = join(dirname(process.argv[1]!), 'handsets')

  router.get('/handsets', defineEventHandler(async (event) => {
    setResponseHeader(event, 'content-type', 'text/html; charset=utf-8')
    setResponseHeader(event, 'content-security-policy', 'default-src \'self\'; img-src \'self\' data:; frame-ancestors \'none\'')
    return readFile(join(built, 'page.html'), 'utf8')
  }))

  router.get('/handsets/:file', defineEventHandler(async (event) => {
    const file = getRouterParam(event, 'file')!
    const type = FILES[file]
    if (!type) {
      setResponseStatus(event, 404)
      return 'There is no such file.'
    }
    setResponseHeader(event, 'content-type', `${type}; charset=utf-8`)
    return readFile(join(built, file), 'utf8')
  }))

  const callOn = (number: string) => {
    const call = exchange.onPhone(number)
    return call && { ...call, isOwn: call.phone !== number }
  }

  router.get('/handsets/api/phones', defineEventHandler(() => {
    const owners = ownersOf(folder)
    const numbers = new Set([
      ...world.handsets.keys(),
      ...owners.keys(),
      ...[...exchange.calls.values()].flatMap(call => [call.phone, ...call.own]),
    ])
    return {
      lines: [...book.all().map(({ number }) => number).filter(book.works), ...SMSC_LINES, ...GATEWAY_LINES],
      numbers: book.all(),
      portings: portings.all().map(({ number, from, state, until }) => ({ number, from, state, until })),
      papers: desk.all().map(({ country, ref, state, until }) => ({ country, ref, state, until })),
      phones: [...numbers].map(number => ({
        number,
        owner: owners.get(number) ?? null,
        on: !world.off.has(number),
        manner: exchange.mannerOf(number),
        call: callOn(number),
        last: world.handsets.get(number)?.at(-1) ?? null,
      })),
    }
  }))

  router.get('/handsets/api/texts', defineEventHandler(event => world.handsets.get(String(getQuery(event).phone)) ?? []))

  router.get('/handsets/api/pictures/:file', defineEventHandler(async (event) => {
    const bytes = await world.pictures.read(getRouterParam(event, 'file')!)
    setResponseStatus(event, bytes ? 200 : 404)
    return bytes
  }))

  const fromThisPage = (origin: string | undefined, host: string | undefined) =>
    !origin || (URL.canParse(origin) && new URL(origin).host === host)

  router.post('/handsets/api/texts', defineEventHandler(async (event) => {
    const { phone, to, text = '', picture } = await readBody<WrittenText>(event) ?? {}
    const usable
      = fromThisPage(getHeader(event, 'origin'), getHeader(event, 'host'))
        && /^\+[1-9]\d{6,14}$/.test(phone ?? '')
        && (book.works(to!) || ([...SMSC_LINES, ...GATEWAY_LINES].includes(to!) && !picture))
        && (text.trim() || picture)
        && (!picture || isPictureType(picture.type))
    if (!usable) {
      setResponseStatus(event, 422)
      return { detail: 'Give the phone, one of the numbers to write to, and a text or a picture (JPEG, PNG or GIF).' }
    }
    if (SMSC_LINES.includes(to!)) await smsc.write(phone!, to!, text)
    else if (GATEWAY_LINES.includes(to!)) await gateway.write(phone!, to!, text)
    else await network.write(phone!, to!, text, picture ? [picture] : [])
    return { written: true }
  }))

  router.post('/handsets/api/power', defineEventHandler(async (event) => {
    const { phone, on } = await readBody<{ phone?: string, on?: boolean }>(event) ?? {}
    if (!phone || !fromThisPage(getHeader(event, 'origin'), getHeader(event, 'host'))) {
      setResponseStatus(event, 422)
      return { detail: 'Give the phone.' }
    }
    await world.record({ do: 'switch', number: phone, on: on === true })
    return { on: on === true }
  }))

  /** Days of waiting for a number, or a month of its rent, are over now. */
  router.post('/handsets/api/numbers', defineEventHandler(async (event) => {
    const { number = '' } = await readBody<{ number?: string }>(event) ?? {}
    const isPorted = portings.all().some(one => one.number === number && one.state !== 'done')
    if (!fromThisPage(getHeader(event, 'origin'), getHeader(event, 'host')) || !(isPorted || book.isTaken(number))) {
      setResponseStatus(event, 422)
      return { detail: 'The carrier has given nobody this number.' }
    }
    await (isPorted ? portings.hasten(number) : book.hasten(number))
    return { done: true }
  }))

  /** Days of looking through papers are over now. */
  router.post('/handsets/api/papers', defineEventHandler(async (event) => {
    const { country = '' } = await readBody<{ country?: string }>(event) ?? {}
    if (!fromThisPage(getHeader(event, 'origin'), getHeader(event, 'host')) || !desk.all().some(one => one.country === country)) {
      setResponseStatus(event, 422)
      return { detail: 'Nobody has handed in papers for this country.' }
    }
    await desk.hasten(country)
    return { done: true }
  }))

  /** What a person does with a telephone: takes a call or not, ends it, calls a line, or says how it shall take calls by itself. */
  router.post('/handsets/api/calls', defineEventHandler(async (event) => {
    const { phone = '', act, to, manner } = await readBody<{ phone?: string, act?: string, to?: string, manner?: Manner }>(event) ?? {}
    const call = exchange.onPhone(phone)
    const usable = fromThisPage(getHeader(event, 'origin'), getHeader(event, 'host')) && /^\+[1-9]\d{6,14}$/.test(phone)
    if (usable && act === 'call' && !call && book.works(to!))
      return { done: (await exchange.callFrom(phone, to!)) !== null }
    if (usable && act === 'manner' && MANNERS.includes(manner!)) return { done: await exchange.setManner(phone, manner!).then(() => true) }
    if (usable && call && call.phone !== phone) {
      const done
        = act === 'pick-up'
          ? exchange.pickUpOwn(call, phone)
          : act === 'decline'
            ? exchange.declineOwn(call, phone)
            : act === 'hang-up'
              ? exchange.end(call, 'hung-up', 'us')
              : null
      if (done) return { done: await done }
    }
    if (usable && act === 'pick-up' && call?.direction === 'out') return { done: await exchange.answer(call, 'person') }
    if (usable && act === 'decline' && call?.direction === 'out' && call.state === 'ringing')
      return { done: await exchange.end(call, 'declined', 'them') }
    if (usable && act === 'hang-up' && call) return { done: await exchange.end(call, 'hung-up', 'them') }
    setResponseStatus(event, 422)
    return { detail: 'This telephone cannot do that now.' }
  }))

  router.get('/handsets/api/live', defineEventHandler((event) => {
    const stream = createEventStream(event)
    const stops = [world, exchange].map(one => one.watch(number => void stream.push(number)))
    stream.onClosed(() => stops.forEach(stop => stop()))
    return stream.send()
  }))

  return router
}

/** What somebody writes on a telephone, perhaps with a picture. */
interface WrittenText { phone?: string, to?: string, text?: string, picture?: { type: string, base64: string } }

/** Whose telephone it is, as the demo data says. */
function ownersOf(folder: string): Map<string, string> {
  const file = join(folder, 'owners.json')
  return new Map(existsSync(file) ? Object.entries(JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>) : [])
}
