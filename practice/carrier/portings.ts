import { join } from 'node:path'
import type { NumberBook } from './book'
import { Journal } from './journal'
import { countryOf } from './numbers'
import type { PortingEvent, World } from './world'

/** What it needs to know of a number that its customer has elsewhere. */
export interface PortingWish { from: string, account: string, /** `2026-12-08`; empty: as soon as it can. */ wishedDay: string }

export interface Porting extends PortingWish {
  number: string
  state: 'asked' | 'sent-back' | 'agreed' | 'done' | 'called-off'
  /** Epoch milliseconds: when the other carrier answers, or the number moves. */
  until: number
  turn: number
}

type Entry = { do: 'keep', porting: Porting }

const LOOK_EVERY_MS = 60_000
const DAY = 86_400_000
/** Invented, of the size that such days are: until the other carrier answers, and then until the number can move. */
const ANSWERS_AFTER = DAY
const MOVES_AFTER = 3 * DAY
/** Shorter ones the other carrier knows nothing of: what goes wrong most often (common practice). */
const LEAST_ACCOUNT = 6

/** Only numbers that are kept for fiction can be had elsewhere. */
const IS_FICTION = /^\+1\d{3}55501\d{2}$|^\+447700900\d{3}$/

/** The desk of the practice carrier at which numbers are brought over from others, in days of its own. */
export class PortingDesk {
  private readonly portings = new Map<string, Porting>()
  private readonly journal: Journal<Entry>

  constructor(
    folder: string,
    private readonly world: World,
    private readonly book: NumberBook,
    private readonly tell: (event: PortingEvent) => Promise<void>,
    private readonly now: () => number = Date.now,
  ) {
    this.journal = new Journal<Entry>(join(folder, 'portings'), ({ porting }) => this.portings.set(porting.number, porting))
  }

  open(): () => void {
    const look = () => void this.look()
    look()
    const timer = setInterval(look, LOOK_EVERY_MS).unref()
    return () => clearInterval(timer)
  }

  all = (): Porting[] => [...this.portings.values()].filter(({ state }) => state !== 'called-off')

  /** One that is on its way is not begun anew. Null for a number that cannot be brought over. */
  async ask(number: string, wish: PortingWish): Promise<Porting | null> {
    if (!IS_FICTION.test(number) || !countryOf(number) || this.book.isTaken(number)) return null
    const known = this.portings.get(number)
    if (known?.state === 'asked' || known?.state === 'agreed') return known
    return this.keep({ number, ...wish, state: 'asked', until: this.now() + ANSWERS_AFTER, turn: (known?.turn ?? 0) + 1 })
  }

  async callOff(number: string): Promise<void> {
    const known = this.portings.get(number)
    if (known && known.state !== 'done') await this.keep({ ...known, state: 'called-off' })
  }

  /** Lets the days be over for which it waits. */
  async hasten(number: string): Promise<void> {
    const known = this.portings.get(number)
    if (known) await this.goOn(known)
  }

  private async look(): Promise<void> {
    for (const porting of this.portings.values()) if (porting.until <= this.now()) await this.goOn(porting)
  }

  private async goOn(porting: Porting): Promise<void> {
    if (porting.state === 'agreed') {
      await this.keep({ ...porting, state: 'done' })
      await this.book.receive(porting.number)
    }
    else if (porting.state === 'asked' && porting.account.trim().length < LEAST_ACCOUNT) {
      await this.keep({ ...porting, state: 'sent-back' })
      await this.say('porting.sent-back', porting, '', `${porting.from} knows no account “${porting.account}”. Look at a bill of theirs for its number.`)
    }
    else if (porting.state === 'asked') {
      const until = Math.max(this.now() + MOVES_AFTER, Date.parse(`${porting.wishedDay}T12:00Z`) || 0)
      await this.keep({ ...porting, state: 'agreed', until })
      await this.say('porting.agreed', porting, new Date(until).toISOString().slice(0, 10), '')
    }
  }

  private async say(type: PortingEvent['type'], { number, turn }: Porting, day: string, words: string): Promise<void> {
    const id = `ev-${type}-${number}-${turn}`
    if (this.world.events.some(event => event.id === id)) return
    await this.tell({ id, type, at: new Date(this.now()).toISOString(), data: { number, day, words } })
  }

  private async keep(porting: Porting): Promise<Porting> {
    const kept = this.journal.append({ do: 'keep', porting })
    this.portings.set(porting.number, porting)
    await kept
    return porting
  }
}
