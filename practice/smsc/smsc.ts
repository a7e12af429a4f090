import { randomBytes } from 'node:crypto'
import type { Server } from 'node:net'
import { join } from 'node:path'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import smpp from 'smpp'
import { cut } from '../carrier/air'
import { Journal } from '../carrier/journal'
import type { Pace } from '../carrier/network'
import type { World } from '../carrier/world'
import { fieldsOf, partOf, RECEIPT, receiptText, type Fields } from './octets'

type Session = InstanceType<typeof smpp.Session>
type Pdu = InstanceType<typeof smpp.PDU>

// octets of messages come and go as they are
for (const command of ['submit_sm', 'deliver_sm']) delete smpp.commands[command]!.params!.short_message!.filter
delete smpp.tlvs.message_payload!.filter

/** Its one customer's account. */
export interface Account { systemId: string, password: string }

/** The numbers that it has given to its one customer, from ranges kept for fiction. */
export const SMSC_LINES = ['+15035550170', '+447700900170']

/** How far it misbehaves; shares of 0 to 1. */
export interface SmscFaults {
  throttled: number
  /** Takes a text and breaks the connection instead of answering. */
  breaks: number
  receiptLost: number
  receiptTwice: number
  /** Receipts come this much later, at random, in milliseconds, and so in another order. */
  lateUpToMs: number
}
export const NO_SMSC_FAULTS: SmscFaults = { throttled: 0, breaks: 0, receiptLost: 0, receiptTwice: 0, lateUpToMs: 0 }

/** What is not acknowledged within this is delivered again. */
const AGAIN_MS = 3_000

interface Taken {
  id: string
  textId: string
  from: string
  to: string
  fields: Kept
  at: number
  /** Whether a receipt was asked for. */
  tells: boolean
}
/** Fields with their octets in base64, for the journal. */
type Kept = Omit<Fields, 'short_message' | 'message_payload'> & { octets: string }
interface Delivery { id: string, from: string, to: string, fields: Kept }

type Answering = (status?: number, fields?: Record<string, string>) => void

type Entry = { do: 'take', taken: Taken } | { do: 'end', id: string } | { do: 'deliver', delivery: Delivery } | { do: 'acknowledged', id: string }

/**
 * An SMS centre that speaks SMPP 3.4: takes short messages, carries them to the handsets, and delivers receipts and what people write,
 * again and again until each is acknowledged.
 */
export class Smsc {
  private readonly unfinished = new Map<string, Taken>()
  private readonly deliveries = new Map<string, Delivery>()
  private readonly onTheirWay = new Set<string>()
  private readonly sessions = new Set<Session>()
  private readonly receivers = new Set<Session>()
  private dead = false
  /** Texts of which some parts are here: by whom, to whom and reference. */
  private readonly open = new Map<string, { textId: string, seen: Set<number> }>()
  private readonly journal: Journal<Entry>
  private readonly limiter: RateLimiterMemory

  constructor(
    folder: string,
    private readonly world: World,
    private readonly account: Account,
    private readonly pace: Pace,
    private readonly faults: SmscFaults,
    private readonly random: () => number,
    perSecond: number,
  ) {
    this.journal = new Journal<Entry>(join(folder, 'smsc'), entry => this.apply(entry))
    this.limiter = new RateLimiterMemory({ points: perSecond, duration: 1 })
  }

  listen(port: number): Promise<Server> {
    const server = smpp.createServer({}, session => this.welcome(session))
    const again = setInterval(() => this.deliverAll(), AGAIN_MS).unref()
    server.once('close', () => clearInterval(again))
    for (const taken of this.unfinished.values()) this.carry(taken)
    return new Promise((resolve, reject) => {
      server.once('error', reject)
      server.listen(port, '127.0.0.1', () => resolve(server))
    })
  }

  /** Breaks every connection, as when its machine dies. What was taken is in its journal. */
  die(): void {
    this.dead = true
    for (const session of this.sessions) session.destroy()
  }

  /** Somebody writes on a handset to one of its numbers. */
  async write(handset: string, to: string, text: string): Promise<void> {
    const at = Date.now()
    await this.world.record({ do: 'write', handset, to, text, id: randomBytes(8).toString('hex'), at })
    for (const part of cut(text, Math.floor(this.random() * 256)))
      await this.queue({ id: `in-${randomBytes(8).toString('hex')}`, from: handset, to, fields: keep(fieldsOf(part)) })
  }

  private welcome(session: Session): void {
    let bound = false
    this.sessions.add(session)
    session.on('error', () => session.destroy())
    session.on('close', () => {
      this.sessions.delete(session)
      this.receivers.delete(session)
    })
    session.on('pdu', (pdu: Pdu) => {
      if (pdu.isResponse()) return
      const answer: Answering = (status = 0, fields = {}) => void session.send(pdu.response({ command_status: status, ...fields }))
      switch (pdu.command) {
        case 'bind_transceiver':
        case 'bind_receiver':
        case 'bind_transmitter': {
          const status = bound ? smpp.errors.ESME_RALYBND! : whyNot(pdu, this.account)
          bound ||= status === 0
          answer(status, { system_id: 'practice' })
          if (status === 0 && pdu.command !== 'bind_transmitter') {
            this.receivers.add(session)
            this.deliverAll()
          }
          return
        }
        case 'enquire_link': return answer()
        case 'unbind':
          answer()
          return void session.socket.end()
        case 'submit_sm':
          return bound ? void this.take(session, pdu, answer) : answer(smpp.errors.ESME_RINVBNDSTS)
        default: return answer(smpp.errors.ESME_RINVCMDID)
      }
    })
  }

  private async take(session: Session, pdu: Pdu, answer: Answering): Promise<void> {
    const busy = this.random() < this.faults.throttled || await this.limiter.consume('account').then(() => false, () => true)
    if (busy) return answer(smpp.errors.ESME_RTHROTTLED)
    const [from, to] = [`+${String(pdu.source_addr)}`, `+${String(pdu.destination_addr)}`]
    if (!SMSC_LINES.includes(from)) return answer(smpp.errors.ESME_RINVSRCADR)
    if (!/^\+[1-9]\d{6,14}$/.test(to)) return answer(smpp.errors.ESME_RINVDSTADR)
    const id = randomBytes(6).toString('hex')
    const fields = pdu as unknown as Fields
    const { reference, of, index } = partOf(fields)
    const textId = this.textOf(`${from} ${to} ${reference} ${of}`, of, index, id)
    const tells = (Number(pdu.registered_delivery) & 1) !== 0
    await this.record({ do: 'take', taken: { id, textId, from, to, fields: keep(fields), at: Date.now(), tells } })
    this.carry(this.unfinished.get(id)!)
    if (this.random() < this.faults.breaks) return session.destroy()
    answer(0, { message_id: id })
  }

  /** To which text a part belongs. */
  private textOf(key: string, of: number, index: number, id: string): string {
    if (of === 1) return id
    const text = this.open.get(key) ?? { textId: id, seen: new Set() }
    text.seen.add(index)
    if (text.seen.size === of) this.open.delete(key)
    else this.open.set(key, text)
    return text.textId
  }

  private carry(taken: Taken): void {
    setTimeout(() => void this.finish(taken), this.pace.sent + this.pace.delivered)
  }

  private async finish({ id, textId, from, to, fields, tells }: Taken): Promise<void> {
    if (this.dead) return
    const off = this.world.off.has(to)
    if (!off) await this.world.record({ do: 'arrive', handset: to, part: partOf(restore(fields)), from, id: textId, at: Date.now() })
    const [stat, err] = off ? ['UNDELIV', '027'] : ['DELIVRD', '000']
    const receipt = keep({ esm_class: RECEIPT, data_coding: 0, short_message: Buffer.from(receiptText({ id, stat, err, at: new Date() })) })
    if (tells && this.random() >= this.faults.receiptLost) await this.queue({ id: `receipt-${id}`, from: to, to: from, fields: receipt })
    if (tells && this.random() < this.faults.receiptTwice) await this.queue({ id: `again-${id}`, from: to, to: from, fields: receipt })
    await this.record({ do: 'end', id })
  }

  private async queue(delivery: Delivery): Promise<void> {
    await this.record({ do: 'deliver', delivery })
    setTimeout(() => this.deliver(delivery), this.random() * this.faults.lateUpToMs).unref()
  }

  private deliverAll(): void {
    for (const delivery of this.deliveries.values()) this.deliver(delivery)
  }

  private deliver({ id, from, to, fields }: Delivery): void {
    const [session] = this.receivers
    if (!session || this.onTheirWay.has(id) || !this.deliveries.has(id)) return
    this.onTheirWay.add(id)
    const again = setTimeout(() => this.onTheirWay.delete(id), AGAIN_MS).unref()
    session.send(new smpp.PDU('deliver_sm', { ...international(from, to), ...restore(fields) }), (answer) => {
      clearTimeout(again)
      this.onTheirWay.delete(id)
      if (answer.command_status === 0) void this.record({ do: 'acknowledged', id })
    })
  }

  private async record(entry: Entry): Promise<void> {
    const kept = this.journal.append(entry)
    this.apply(entry)
    await kept
  }

  private apply(entry: Entry): void {
    switch (entry.do) {
      case 'take': return void this.unfinished.set(entry.taken.id, entry.taken)
      case 'end': return void this.unfinished.delete(entry.id)
      case 'deliver': return void this.deliveries.set(entry.delivery.id, entry.delivery)
      case 'acknowledged': return void this.deliveries.delete(entry.id)
    }
  }
}

function whyNot({ system_id: systemId, password }: Pdu, account: Account): number {
  if (systemId !== account.systemId) return smpp.errors.ESME_RINVSYSID!
  return password === account.password ? 0 : smpp.errors.ESME_RINVPASWD!
}

const international = (from: string, to: string) => ({
  source_addr_ton: 1, source_addr_npi: 1, source_addr: from.slice(1), dest_addr_ton: 1, dest_addr_npi: 1, destination_addr: to.slice(1),
})

function keep(fields: Fields): Kept {
  const { short_message, message_payload, esm_class, data_coding } = fields
  const { sar_msg_ref_num, sar_total_segments, sar_segment_seqnum } = fields
  const octets = message_payload?.length ? message_payload : short_message ?? Buffer.alloc(0)
  return { esm_class, data_coding, sar_msg_ref_num, sar_total_segments, sar_segment_seqnum, octets: octets.toString('base64') }
}

function restore({ octets, esm_class, data_coding, ...sar }: Kept): Fields {
  const [message, joined] = [Buffer.from(octets, 'base64'), Object.fromEntries(Object.entries(sar).filter(([, value]) => value !== undefined))]
  return { esm_class, data_coding, ...joined, ...(message.length > 254 ? { message_payload: message } : { short_message: message }) }
}
