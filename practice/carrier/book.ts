import { join } from 'node:path'
import { Journal } from './journal'
import { LINES } from './numbers'
import { countryOfOwn, offerOf, termsIn } from './offers'
import type { NumberEvent, World } from './world'

/** A number of its one customer: asked for, there, there until its paid month is over, or gone. */
export interface Given {
  number: string
  state: 'ordered' | 'given' | 'ending' | 'ended'
  /** Epoch milliseconds: when it will be there, until when it is paid, or when it ended. */
  until: number
}

type Entry = { do: 'keep', given: Given }

/** How often it looks which day has come. */
const LOOK_EVERY_MS = 60_000
const DAY = 86_400_000
/** A number that has ended is given to nobody else for so long. */
const KEPT_FOR = 30 * DAY

/** A month later, on the same day of the month or the last there is. */
export function monthLater(at: number): number {
  const day = new Date(at)
  const next = new Date(at)
  next.setUTCMonth(day.getUTCMonth() + 1)
  if (next.getUTCDate() !== day.getUTCDate()) next.setUTCDate(0)
  return next.getTime()
}

/** The book of the numbers that the practice carrier rents out to its one customer, month by month. */
export class NumberBook {
  private readonly numbers = new Map<string, Given>()
  private readonly journal: Journal<Entry>

  /** @param tell tells the customer, and keeps it in the list of what was told */
  constructor(
    folder: string,
    private readonly world: World,
    private readonly tell: (event: NumberEvent) => Promise<void>,
    private readonly now: () => number = Date.now,
  ) {
    this.journal = new Journal<Entry>(join(folder, 'numbers'), ({ given }) => this.numbers.set(given.number, given))
  }

  /** Goes on with what its days bring, until stopped. Those that were given before there was a book are in it from now on. */
  async open(): Promise<() => void> {
    for (const { number } of LINES) if (!this.numbers.has(number)) await this.keep({ number, state: 'given', until: monthLater(this.now()) })
    const look = () => void this.look()
    look()
    const timer = setInterval(look, LOOK_EVERY_MS).unref()
    return () => clearInterval(timer)
  }

  all = (): Given[] => [...this.numbers.values()]

  /** Whether texts and calls go over it. */
  works = (number: string): boolean => ['given', 'ending'].includes(this.numbers.get(number)?.state ?? '')

  isTaken = (number: string): boolean => {
    const known = this.numbers.get(number)
    return known !== undefined && (known.state !== 'ended' || this.now() - known.until < KEPT_FOR)
  }

  /** @returns it, as often as it is asked for; null where it is none that is for rent */
  async take(number: string): Promise<Given | null> {
    const known = this.numbers.get(number)
    if (known && known.state !== 'ended') return known
    const offer = offerOf(number)
    if (!offer && !known) return null
    const { days, setUp } = offer ?? { days: 0, setUp: { micros: 0, currency: 'USD' } }
    // one that was ours a moment ago has its papers
    if (days > 0 && !known) return this.keep({ number, state: 'ordered', until: this.now() + days * DAY })
    return this.give(number, known ? 0 : setUp.micros)
  }

  /** One that comes from another carrier is there from now on. */
  async receive(number: string): Promise<void> {
    if (!this.isTaken(number)) await this.give(number, 0)
  }

  async end(number: string): Promise<Given | null> {
    const known = this.numbers.get(number)
    if (!known || known.state === 'ended') return known ?? null
    // nothing is paid for yet
    if (known.state === 'ordered') return this.over(known)
    return this.keep({ ...known, state: 'ending' })
  }

  /** It is not to end after all. */
  async keepOn(number: string): Promise<Given | null> {
    const known = this.numbers.get(number)
    return known?.state === 'ending' ? this.keep({ ...known, state: 'given' }) : known ?? null
  }

  /** Lets what a number waits for be so now: it is there, or its month is over. */
  async hasten(number: string): Promise<void> {
    const known = this.numbers.get(number)
    if (known && known.state !== 'ended') await this.turn({ ...known, until: this.now() })
  }

  private async look(): Promise<void> {
    for (const given of this.numbers.values()) if (given.state !== 'ended' && given.until <= this.now()) await this.turn(given)
  }

  private async turn(given: Given): Promise<void> {
    if (given.state === 'ordered') await this.give(given.number, offerOf(given.number)!.setUp.micros)
    else if (given.state === 'ending') await this.over(given)
    else await this.rent(given.number, given.until, 0, 'number.rented')
  }

  private give = (number: string, setUpMicros: number) => this.rent(number, this.now(), setUpMicros, 'number.given')

  private async rent(number: string, from: number, setUpMicros: number, type: NumberEvent['type']): Promise<Given> {
    const { micros, currency } = termsIn(countryOfOwn(number)).rent
    const given = await this.keep({ number, state: 'given', until: monthLater(from) })
    await this.say(type, given, { micros: micros + setUpMicros, currency })
    return given
  }

  private async over({ number }: Given): Promise<Given> {
    const ended = await this.keep({ number, state: 'ended', until: this.now() })
    await this.say('number.ended', ended, null)
    return ended
  }

  private async say(type: NumberEvent['type'], { number, until }: Given, price: NumberEvent['data']['price']): Promise<void> {
    const id = `ev-${type.slice('number.'.length)}-${number}-${until}`
    if (this.world.events.some(event => event.id === id)) return
    await this.tell({ id, type, at: new Date(this.now()).toISOString(), data: { number, until: new Date(until).toISOString(), price } })
  }

  private async keep(given: Given): Promise<Given> {
    const kept = this.journal.append({ do: 'keep', given })
    this.numbers.set(given.number, given)
    await kept
    return given
  }
}
