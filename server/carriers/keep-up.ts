import { eq } from 'drizzle-orm'
import { takeCallEvent } from '../calling/events'
import type { Exchange } from '../calling/port'
import { tx } from '../db/door'
import { carrierCursor, carrierPrice } from '../db/schema'
import { log } from '../http/log'
import { takeEvent } from '../texting/events'
import type { Carrier } from './port'

/** Fetches a carrier's price list, so that the composer can say what a text costs before it goes. */
export async function fetchPrices(carrier: Carrier): Promise<void> {
  const { prices, ...most } = await carrier.prices()
  await tx(async (database) => {
    await database.delete(carrierPrice).where(eq(carrierPrice.carrier, carrier.name))
    await database.insert(carrierPrice).values(prices.map(price => ({ ...price, carrier: carrier.name, ...most })))
  })
}

/** Whoever keeps a list of what happened, by a name of its own. */
interface Teller<Event> { name: string, eventsSince: (cursor: string) => Promise<{ events: Event[], cursor: string }> }

/** Takes the events that never reached us. Those that did are known by their ids and change nothing. */
export async function catchUp<Event>({ name, eventsSince }: Teller<Event>, take: (event: Event) => Promise<unknown>): Promise<void> {
  const [known] = await tx(database => database.select().from(carrierCursor).where(eq(carrierCursor.carrier, name)))
  let cursor = known?.cursor ?? ''
  for (;;) {
    const { events, cursor: next } = await eventsSince(cursor)
    for (const event of events) await take(event)
    if (next === cursor) return
    cursor = next
    await tx(database => database.insert(carrierCursor).values({ carrier: name, cursor }).onConflictDoUpdate({ target: carrierCursor.carrier, set: { cursor } }))
  }
}

/**
 * Keeps up with a carrier and an exchange: prices now and hourly, missed events now and every so often. Who
 * is away is asked again at the next turn.
 */
export function keepUpWith(carrier: Carrier, exchange: Exchange, everyMs: number): () => void {
  let pricesAt = 0
  let busy = false
  const turn = async () => {
    if (busy) return
    busy = true
    try {
      if (Date.now() - pricesAt > 3_600_000) {
        await fetchPrices(carrier)
        pricesAt = Date.now()
      }
      await catchUp(carrier, event => takeEvent(carrier.name, event, new Date()))
      await catchUp({ name: `${exchange.name} calls`, eventsSince: exchange.eventsSince }, told => takeCallEvent(exchange.name, told, new Date()))
    }
    catch (error) {
      log.warn({ err: error, carrier: carrier.name }, 'the carrier or the exchange does not answer; it is asked again')
    }
    finally {
      busy = false
    }
  }
  void turn()
  const timer = setInterval(turn, everyMs).unref()
  return () => clearInterval(timer)
}
