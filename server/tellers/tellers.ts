import { takeCallEvent } from '../calling/events'
import type { Exchange } from '../calling/port'
import { heedHello } from '../carriers/accounts'
import { heedPapers } from '../papers/told'
import { heedPorting } from '../texting/porting'
import { takeEvent } from '../texting/events'
import type { Carrier } from '../carriers/port'

/** Whoever tells us what happened, by a name of its own. */
export interface Teller {
  name: string
  /** Left out by one that keeps no list. */
  eventsSince?: (cursor: string) => Promise<{ told: unknown[], cursor: string }>
  /**
   * Reads and takes one thing that was told.
   *
   * @returns false where it has to be told again later
   * @throws what stands in the way of this one, or of all
   */
  take: (told: unknown, now: Date) => Promise<boolean>
}

const tellers = new Map<string, Teller>()

export const carrierTeller = (carrier: Carrier): Teller => ({
  name: carrier.name,
  eventsSince: carrier.eventsSince,
  async take(told, now) {
    const event = carrier.readEvent(told)
    if (event.kind === 'porting') return heedPorting(carrier.name, event, now)
    if (event.kind === 'papers') return heedPapers(carrier.name, event, now)
    if (event.kind !== 'hello') return takeEvent(carrier.name, event, now)
    await heedHello(carrier.name, event.nonce)
    return true
  },
})

export const exchangeTeller = (exchange: Exchange): Teller => ({
  name: `${exchange.name} calls`,
  eventsSince: exchange.eventsSince,
  take: (told, now) => takeCallEvent(exchange.name, exchange.readEvent(told), now),
})

export function registerTeller(teller: Teller): void {
  tellers.set(teller.name, teller)
}

export function unregisterTeller(name: string): void {
  tellers.delete(name)
}

export const tellerNamed = (name: string): Teller | undefined => tellers.get(name)
