import { eq } from 'drizzle-orm'
import { read, tx } from '../db/door'
import { carrierCursor, carrierPrice } from '../db/schema'
import { log } from '../log/log'
import { haveAccounts } from '../money/accounts'
import { heedNumbers } from '../texting/line-told'
import type { Carrier } from '../carriers/port'
import { takeOrSetAside } from './set-aside'
import type { Teller } from './tellers'

const ASKED_EVERY_MS = 3_600_000

/** Fetches a carrier's price list, so that the composer can say what a text costs before it goes. */
export async function fetchPrices(carrier: Carrier): Promise<void> {
  if (!carrier.prices) return
  const { prices, ...most } = await carrier.prices()
  await tx(async (database) => {
    await database.delete(carrierPrice).where(eq(carrierPrice.carrier, carrier.name))
    if (prices.length > 0) await database.insert(carrierPrice).values(prices.map(price => ({ ...price, carrier: carrier.name, ...most })))
    await haveAccounts(prices.map(({ currency }) => currency))
  })
}

/** Takes the events that never reached us. Those that did are known by their ids and change nothing. */
export async function catchUp(teller: Teller, now: () => Date = () => new Date()): Promise<void> {
  const [known] = await read(database => database.select().from(carrierCursor).where(eq(carrierCursor.carrier, teller.name)))
  let cursor = known?.cursor ?? ''
  while (teller.eventsSince) {
    const { told, cursor: next } = await teller.eventsSince(cursor)
    for (const one of told) await takeOrSetAside(teller, one, now())
    if (next === cursor) return
    cursor = next
    await tx(database =>
      database
        .insert(carrierCursor)
        .values({ carrier: teller.name, cursor })
        .onConflictDoUpdate({ target: carrierCursor.carrier, set: { cursor } }),
    )
  }
}

/** Does work now and every so often, one turn after the other. A fault of one such work is no other's. */
function again(what: string, work: () => Promise<void>, everyMs: number): () => void {
  let busy = false
  const turn = async () => {
    if (busy) return
    busy = true
    await work().catch(error => log.warn({ err: error, what }, 'nobody answers; it is asked again'))
    busy = false
  }
  void turn()
  const timer = setInterval(turn, everyMs).unref()
  return () => clearInterval(timer)
}

/** Keeps up with carriers and exchanges: prices and numbers now and hourly, missed events now and every so often. */
export function keepUpWith(carriers: Carrier[], tellers: Teller[], everyMs: number): () => void {
  const asked = new Map<string, number>()
  /** Until it was answered once, it is asked again as often as for what was missed. */
  const hourly = (what: string, work: () => Promise<void>) => again(what, async () => {
    if (performance.now() - (asked.get(what) ?? -Infinity) < ASKED_EVERY_MS) return
    await work()
    asked.set(what, performance.now())
  }, everyMs)
  const stops = [
    ...carriers.filter(({ prices }) => prices).map(carrier => hourly(`prices of ${carrier.name}`, () => fetchPrices(carrier))),
    ...carriers.filter(({ rental }) => rental).map(carrier => hourly(`numbers of ${carrier.name}`, () => heedNumbers(carrier, new Date()))),
    ...tellers.filter(({ eventsSince }) => eventsSince).map(teller => again(`events of ${teller.name}`, () => catchUp(teller), everyMs)),
  ]
  return () => stops.forEach(stop => stop())
}
