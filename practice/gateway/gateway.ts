import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { createRouter, defineEventHandler, getHeaders, readRawBody, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { Webhook } from 'standardwebhooks'
import { cut } from '../carrier/air'
import { Journal } from '../carrier/journal'
import type { Pace } from '../carrier/network'
import type { World } from '../carrier/world'

/** The numbers that it has given to its one customer, from ranges kept for fiction. */
export const GATEWAY_LINES = ['+15035550171', '+447700900171']

const PRICE_MICROS = 6_000
/** What is not taken is told again, after growing pauses. */
const [FIRST_PAUSE_MS, LONGEST_PAUSE_MS] = [250, 30_000]

/** Shares of 0 to 1. */
export interface GatewayFaults {
  /** Takes a text and breaks the connection instead of answering. */
  answerLost: number
  /** Has no room. */
  busy: number
  /** Tells a thing twice. */
  toldTwice: number
}
export const NO_GATEWAY_FAULTS: GatewayFaults = { answerLost: 0, busy: 0, toldTwice: 0 }

interface Taken { key: string, id: string, from: string, to: string, text: string, at: number }
interface Report { id: string, type: string, at: string, data: object }
type Entry
  = { do: 'take', taken: Taken }
    | { do: 'end', key: string }
    | { do: 'tell', report: Report }
    | { do: 'told', id: string }
    | { do: 'report-to', url: string }

/** Something asked of it, as docs/gateway.md has it. */
interface Asked { type?: string, data?: Ask }
interface Ask { key?: string, from?: string, to?: string, text?: string, nonce?: string, reportTo?: string | null }

/** A gateway that takes signed texts over HTTP, carries them to the handsets, and tells what becomes of them until that is taken. */
export class Gateway {
  private readonly byKey = new Map<string, Taken>()
  private readonly unfinished = new Map<string, Taken>()
  private readonly reports = new Map<string, Report>()
  private reportTo: string | null = null
  private readonly webhook: Webhook
  private readonly journal: Journal<Entry>
  private readonly limiter: RateLimiterMemory

  constructor(
    folder: string,
    private readonly world: World,
    secret: string,
    private readonly pace: Pace,
    private readonly faults: GatewayFaults,
    private readonly random: () => number,
    perSecond: number,
  ) {
    this.webhook = new Webhook(secret)
    this.journal = new Journal<Entry>(join(folder, 'gateway'), entry => this.apply(entry))
    this.limiter = new RateLimiterMemory({ points: perSecond, duration: 1 })
  }

  /** Goes on where it was. */
  resume(): void {
    for (const taken of this.unfinished.values()) this.carry(taken)
    for (const report of this.reports.values()) this.send(report)
  }

  /** Somebody writes on a handset to one of its numbers. */
  async write(handset: string, to: string, text: string): Promise<void> {
    const id = randomBytes(8).toString('hex')
    await this.world.record({ do: 'write', handset, to, text, id, at: Date.now() })
    await this.tell('text.received', { id, from: handset, to, text })
  }

  router() {
    const router = createRouter()
    router.post('/gateway', defineEventHandler(async (event) => {
      const body = await readRawBody(event) ?? ''
      if (!this.isSigned(body, event)) return refuse(event, 401, 'bad-signature')
      const { type, data = {} } = JSON.parse(body) as Asked
      if (type === 'hello') return this.greet(data)
      return type === 'text' ? this.take(event, data) : refuse(event, 400, 'no-such-type')
    }))
    return router
  }

  private isSigned(body: string, event: H3Event): boolean {
    try {
      this.webhook.verify(body, getHeaders(event) as Record<string, string>)
      return true
    }
    catch {
      return false
    }
  }

  private async greet({ nonce, reportTo }: Ask) {
    if (reportTo) {
      await this.record({ do: 'report-to', url: reportTo })
      await this.tell('hello', { nonce })
    }
    return {}
  }

  private async take(event: H3Event, { key = '', from = '', to = '', text = '' }: Ask) {
    const known = this.byKey.get(key)
    if (known) return accepted(known)
    if (this.random() < this.faults.busy || await this.limiter.consume('account').then(() => false, () => true)) {
      setResponseHeader(event, 'retry-after', '1' as unknown as number)
      return refuse(event, 429, 'too-fast')
    }
    if (!key || !text) return refuse(event, 400, 'bad-request')
    if (!GATEWAY_LINES.includes(from)) return refuse(event, 422, 'sender-unknown')
    if (!/^\+[1-9]\d{6,14}$/.test(to)) return refuse(event, 422, 'recipient-unknown')
    const taken: Taken = { key, id: randomBytes(8).toString('hex'), from, to, text, at: Date.now() }
    await this.record({ do: 'take', taken })
    this.carry(taken)
    if (this.random() < this.faults.answerLost) event.node.req.socket.destroy()
    return accepted(taken)
  }

  private carry(taken: Taken): void {
    setTimeout(() => void this.finish(taken), this.pace.sent + this.pace.delivered).unref()
  }

  private async finish({ key, id, from, to, text }: Taken): Promise<void> {
    const off = this.world.off.has(to)
    if (!off) for (const part of cut(text, Math.floor(this.random() * 256))) await this.world.record({ do: 'arrive', handset: to, part, from, id, at: Date.now() })
    await this.tell('text.sent', { id, key })
    await this.tell(off ? 'text.undelivered' : 'text.delivered', { id, key, ...(off && { code: 'recipient-unreachable' }) })
    await this.record({ do: 'end', key })
  }

  private async tell(type: string, data: object): Promise<void> {
    const report = { id: randomBytes(8).toString('hex'), type, at: new Date().toISOString(), data }
    await this.record({ do: 'tell', report })
    this.send(report)
    if (this.random() < this.faults.toldTwice) this.send(report)
  }

  private send(report: Report, pause = FIRST_PAUSE_MS): void {
    const again = () => void setTimeout(() => this.send(report, Math.min(pause * 2, LONGEST_PAUSE_MS)), pause).unref()
    if (!this.reports.has(report.id)) return
    if (!this.reportTo) return again()
    const at = new Date()
    const body = JSON.stringify(report)
    const headers = {
      'content-type': 'application/json',
      'webhook-id': report.id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': this.webhook.sign(report.id, at, body),
    }
    fetch(this.reportTo, { method: 'POST', body, headers, signal: AbortSignal.timeout(5_000) })
      .then(({ ok }) => ok ? this.record({ do: 'told', id: report.id }) : again(), again)
  }

  private async record(entry: Entry): Promise<void> {
    const kept = this.journal.append(entry)
    this.apply(entry)
    await kept
  }

  private apply(entry: Entry): void {
    switch (entry.do) {
      case 'take':
        this.byKey.set(entry.taken.key, entry.taken)
        return void this.unfinished.set(entry.taken.key, entry.taken)
      case 'end': return void this.unfinished.delete(entry.key)
      case 'tell': return void this.reports.set(entry.report.id, entry.report)
      case 'told': return void this.reports.delete(entry.id)
      case 'report-to': return void (this.reportTo = entry.url)
    }
  }
}

function refuse(event: H3Event, status: number, code: string) {
  setResponseStatus(event, status)
  return { code }
}

function accepted({ id, text }: Taken) {
  const parts = cut(text, 0).length
  return { id, parts, price: { micros: parts * PRICE_MICROS, currency: 'USD' } }
}
