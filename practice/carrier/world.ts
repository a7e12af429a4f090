import { join as joinPath } from 'node:path'
import { cut, join, type Part } from './air'
import { Journal } from './journal'
import { Pictures, type Picture } from './pictures'
import type { Tables } from './tables'

/** Everything that the practice carrier and its handsets remember; each entry changes the world in one way. */
export type Entry
  = | { do: 'accept', text: SentText }
    | { do: 'event', event: TextEvent | NumberEvent | PapersEvent | PortingEvent }
    | { do: 'arrive', handset: string, part: Part, from: string, id: string, at: number }
    | { do: 'arrive-with-pictures', handset: string, from: string, id: string, text: string, pictures: Picture[], at: number }
    | { do: 'write', handset: string, to: string, text: string, id: string, at: number, pictures?: Picture[] }
    | { do: 'opt', number: string, out: boolean }
    | { do: 'switch', number: string, on: boolean }

export interface SentText {
  id: string
  key: string
  from: string
  to: string
  text: string
  /** The national tables that it is said in; none in journals of before there were any. */
  tables?: Tables
  /** A text with pictures goes whole, not in parts. */
  pictures?: Picture[]
  parts: number
  price: { micros: number, currency: string }
  at: number
  confirmsOptOut: boolean
}

/** What the carrier thinks of papers of its customer's. */
export interface PapersEvent {
  id: string
  type: 'papers.accepted' | 'papers.asked-back'
  at: string
  data: { country: string, ref: string, words: string }
}

/** How far a number is that the customer brings over from another carrier. */
export interface PortingEvent {
  id: string
  type: 'porting.agreed' | 'porting.sent-back'
  at: string
  data: { number: string, day: string, words: string }
}

/** What became of a number of the customer's, and what it costs. */
export interface NumberEvent {
  id: string
  type: 'number.given' | 'number.rented' | 'number.ended'
  at: string
  data: {
    number: string
    /** Until when it is paid, or when it ended. */
    until: string
    price: { micros: number, currency: string } | null
  }
}

export interface TextEvent {
  id: string
  type: 'text.sent' | 'text.delivered' | 'text.undelivered' | 'text.received'
  at: string
  data: {
    id: string
    key: string | null
    code: string | null
    from: string
    to: string
    text: string
    /** By their names here, to be fetched. */
    pictures?: Picture[]
  }
}

export interface HandsetText {
  id: string
  at: number
  direction: 'in' | 'out'
  other: string
  text: string
  parts: number
  pictures?: Picture[]
}

export class World {
  readonly byKey = new Map<string, SentText>()
  readonly events: (TextEvent | NumberEvent | PapersEvent | PortingEvent)[] = []
  readonly handsets = new Map<string, HandsetText[]>()
  readonly optedOut = new Set<string>()
  readonly off = new Set<string>()
  readonly pictures: Pictures
  private readonly halfArrived = new Map<string, Part[]>()
  private readonly journal: Journal<Entry>
  private readonly watchers = new Set<(number: string) => void>()

  constructor(folder: string) {
    this.pictures = new Pictures(joinPath(folder, 'carrier'))
    this.journal = new Journal<Entry>(joinPath(folder, 'carrier'), entry => this.apply(entry))
  }

  /**
   * Resolves once the change would outlive a crash. What came in holds at once, so that asking twice is the same as asking
   * once; an event is told only when it is kept, or it would be told again after a crash, with another time.
   */
  async record(entry: Entry): Promise<void> {
    const kept = this.journal.append(entry)
    if (entry.do !== 'event') this.apply(entry)
    await kept
    if (entry.do === 'event') this.apply(entry)
  }

  /** Texts that were taken and of which the network has not yet said what became of them. */
  unfinished(): SentText[] {
    const told = new Set(
      this.events.filter(event => event.type === 'text.delivered' || event.type === 'text.undelivered').map(event => (event as TextEvent).data.id),
    )
    return [...this.byKey.values()].filter(text => !told.has(text.id))
  }

  watch(seen: (number: string) => void): () => void {
    this.watchers.add(seen)
    return () => this.watchers.delete(seen)
  }

  partsOf(text: SentText): Part[] {
    return cut(text.text, this.byKey.size % 256, text.tables)
  }

  private apply(entry: Entry): void {
    switch (entry.do) {
      case 'accept':
        this.byKey.set(entry.text.key, entry.text)
        break
      case 'event':
        this.events.push(entry.event)
        break
      case 'opt':
        if (entry.out) this.optedOut.add(entry.number)
        else this.optedOut.delete(entry.number)
        break
      case 'switch':
        if (entry.on) this.off.delete(entry.number)
        else this.off.add(entry.number)
        this.tell(entry.number)
        break
      case 'write':
        this.show(entry.handset, {
          id: entry.id,
          at: entry.at,
          direction: 'out',
          other: entry.to,
          text: entry.text,
          parts: cut(entry.text, 0).length,
          pictures: entry.pictures,
        })
        break
      case 'arrive-with-pictures':
        if (this.handsets.get(entry.handset)?.some(text => text.id === entry.id)) break
        this.show(entry.handset, {
          id: entry.id,
          at: entry.at,
          direction: 'in',
          other: entry.from,
          text: entry.text,
          parts: 1,
          pictures: entry.pictures,
        })
        break
      case 'arrive':
        this.arrive(entry)
    }
  }

  /** A telephone shows a text when its last part is there, and takes each part once. */
  private arrive({ handset, part, from, id, at }: Extract<Entry, { do: 'arrive' }>): void {
    if (this.handsets.get(handset)?.some(text => text.id === id)) return
    const parts = this.halfArrived.get(id) ?? []
    if (!parts.some(known => known.index === part.index)) parts.push(part)
    const text = join(parts)
    if (text === null) {
      this.halfArrived.set(id, parts)
      return
    }
    this.halfArrived.delete(id)
    this.show(handset, { id, at, direction: 'in', other: from, text, parts: part.of })
  }

  private show(handset: string, text: HandsetText): void {
    const texts = this.handsets.get(handset) ?? []
    texts.push(text)
    this.handsets.set(handset, texts)
    this.tell(handset)
  }

  private tell(number: string): void {
    for (const seen of this.watchers) seen(number)
  }
}
