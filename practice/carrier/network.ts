import { randomUUID } from 'node:crypto'
import { crashPoint } from './crash-points'
import type { Faults } from './faults'
import type { Picture } from './pictures'
import type { Reporter } from './reporter'
import type { NumberEvent, PapersEvent, PortingEvent, SentText, TextEvent, World } from './world'

/** How long the air takes, in milliseconds. */
export interface Pace { sent: number, delivered: number }

/** Carries accepted texts to handsets, and tells what became of them. */
export class Network {
  constructor(
    private readonly world: World,
    private readonly reporter: Reporter,
    private readonly pace: Pace,
    readonly faults: Faults,
    private readonly random: () => number,
  ) {}

  /** After a restart: goes on with what was taken and not yet finished. */
  resume(): void {
    for (const text of this.world.unfinished()) this.carry(text)
  }

  carry(text: SentText): void {
    setTimeout(() => void this.finish(text), this.pace.sent)
  }

  private async finish(text: SentText): Promise<void> {
    await this.report('text.sent', text, null)
    await new Promise(resolve => setTimeout(resolve, this.pace.delivered))
    if (this.world.off.has(text.to)) return this.report('text.undelivered', text, 'recipient-unreachable')
    await (text.pictures?.length ? this.arriveWhole(text, text.pictures) : this.arriveInParts(text))
    crashPoint('arrived')
    await this.report('text.delivered', text, null)
  }

  private async arriveWhole({ id, from, to, text }: SentText, pictures: Picture[]): Promise<void> {
    await this.world.record({ do: 'arrive-with-pictures', handset: to, from, id, text, pictures, at: Date.now() })
  }

  private async arriveInParts(text: SentText): Promise<void> {
    const parts = this.world.partsOf(text)
    if (this.random() < 0.5) parts.reverse()
    for (const part of parts)
      await this.world.record({ do: 'arrive', handset: text.to, part, from: text.from, id: text.id, at: Date.now() })
  }

  /** Somebody writes on a handset to one of our customer's numbers. */
  async write(handset: string, to: string, text: string, sent: { type: string, base64: string }[] = []): Promise<void> {
    const id = randomUUID()
    const pictures = await this.world.pictures.keep(id, sent)
    const at = Date.now()
    const word = text
      .trim()
      .toLowerCase()
      .replace(/[^a-z]/g, '')
    await this.world.record({ do: 'write', handset, to, text, id, at, pictures })
    if (word === 'stop' || word === 'stopall') await this.world.record({ do: 'opt', number: handset, out: true })
    if (word === 'start' || word === 'unstop') await this.world.record({ do: 'opt', number: handset, out: false })
    await this.tell({
      id: `ev-${id}`,
      type: 'text.received',
      at: new Date(at).toISOString(),
      data: { id, key: null, code: null, from: handset, to, text, pictures },
    })
  }

  private async report(type: TextEvent['type'], text: SentText, code: string | null): Promise<void> {
    const id = `ev-${type.slice(5)}-${text.id}`
    if (this.world.events.some(event => event.id === id)) return
    await this.tell({
      id,
      type,
      at: new Date().toISOString(),
      data: { id: text.id, key: text.key, code, from: text.from, to: text.to, text: '' },
    })
  }

  /** Keeps what happened in the list of what was told, and tells it, unless something goes wrong on the way. */
  async tell(event: TextEvent | NumberEvent | PapersEvent | PortingEvent): Promise<void> {
    await this.world.record({ do: 'event', event })
    if (this.random() < this.faults.oddEvents)
      await this.world.record({ do: 'event', event: { ...event, id: `odd-${event.id}`, type: 'text.priced' } as unknown as TextEvent })
    if (this.random() < this.faults.reportLost) return
    this.reporter.send(event, this.random() * this.faults.lateUpToMs)
    if (this.random() < this.faults.reportTwice) this.reporter.send(event, this.random() * this.faults.lateUpToMs)
  }
}
