import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { Journal } from '../carrier/journal'
import type { Reporter } from '../carrier/reporter'
import type { Call, CallEvent, End, Entry, ExchangePace } from './call'
import { mannerOf, type Manner } from './manners'
import { lengthOf, madeUpSound } from './sound'

const MOST_TONES = 40
const QUIET = { own: [], ownDesks: {}, ownOn: null, desks: [], tones: '', held: false, muted: false, recording: false, toRecord: false, toMailbox: false, greeting: '' }

/** Invented, of the size that calls cost. */
const MICROS_A_MINUTE = 14_000

/** A telephone exchange: connects our customer's lines with the telephones of the practice world. */
export class Exchange {
  readonly calls = new Map<string, Call>()
  readonly events: CallEvent[] = []
  private readonly byKey = new Map<string, string>()
  private readonly notToBe = new Set<string>()
  private readonly manners = new Map<string, Manner>()
  private readonly journal: Journal<Entry>
  private readonly tapes = new Map<string, { of: 'call' | 'message', ms: number, since: number | null }>()
  private readonly watchers = new Set<(phone: string) => void>()

  constructor(
    folder: string,
    private readonly reporter: Pick<Reporter, 'send'>,
    private readonly pace: ExchangePace,
    private readonly isOff: (phone: string) => boolean,
  ) {
    this.journal = new Journal<Entry>(join(folder, 'exchange'), entry => this.apply(entry))
  }

  /** After a restart no call is on any more: the wires were cut. */
  async resume(): Promise<void> {
    for (const call of this.calls.values()) if (call.state !== 'ended') await this.end(call, 'network', 'network')
  }

  watch(seen: (phone: string) => void): () => void {
    this.watchers.add(seen)
    return () => this.watchers.delete(seen)
  }

  /** Asking twice with one key is one call. */
  async dial(
    key: string,
    line: string,
    phone: string,
    { record = false, own = [], desk }: { record?: boolean, own?: string[], desk?: string } = {},
  ): Promise<Call> {
    const known = this.byKey.get(key)
    if (known) return this.calls.get(known)!
    const call: Call = {
      id: randomUUID(),
      key,
      direction: 'out',
      line,
      phone,
      state: own.length > 0 ? 'own-ringing' : 'ringing',
      ...QUIET,
      own,
      desks: desk ? [desk] : [],
      toRecord: record,
    }
    this.calls.set(call.id, call)
    this.byKey.set(key, call.id)
    this.later(this.pace.ringing, call, () => (own.length > 0 ? this.ringOwn(call) : this.beginRinging(call)))
    return call
  }

  /** The call of a key, where there is one; otherwise there will be none. */
  async never(key: string): Promise<Call | null> {
    const known = this.byKey.get(key)
    if (known) return this.calls.get(known) ?? null
    this.notToBe.add(key)
    await this.journal.append({ do: 'never', key })
    return null
  }

  isNever(key: string): boolean {
    return this.notToBe.has(key)
  }

  /** All of them ring; whichever is picked up first has the call. Nobody else's manner is theirs: they pick up unless told otherwise. */
  private async ringOwn(call: Call): Promise<void> {
    await this.tell(call, 'call.own-ringing', {})
    for (const phone of call.own) {
      if (!this.isOff(phone) && (this.manners.get(phone) ?? 'picks-up') === 'picks-up')
        this.later(this.pace.pickUp, call, () => this.pickUpOwn(call, phone))
    }
    this.later(this.pace.patience, call, async () => {
      if (call.state === 'own-ringing') await this.end(call, 'own-no-answer', 'us')
    })
  }

  /** Our customer's own telephones ring along with a call that comes in; whichever is picked up has it. */
  ringAlong(call: Call, phones: { number: string, desk: string }[], record: boolean): boolean {
    if (call.direction !== 'in' || call.state !== 'ringing') return false
    call.toRecord = record
    const fresh = phones.filter(({ number }) => !call.own.includes(number) && !this.isOff(number) && !this.onPhone(number))
    call.own = [...call.own, ...fresh.map(({ number }) => number)]
    call.ownDesks = { ...call.ownDesks, ...Object.fromEntries(fresh.map(({ number, desk }) => [number, desk])) }
    for (const { number } of fresh) {
      this.show(number)
      if (this.manners.get(number) === 'picks-up') this.later(this.pace.pickUp, call, () => this.pickUpOwn(call, number))
    }
    return true
  }

  async pickUpOwn(call: Call, phone: string): Promise<boolean> {
    if (call.direction === 'in') return this.takeOn(call, phone)
    if (call.state !== 'own-ringing' || !call.own.includes(phone)) return false
    call.state = 'ringing'
    call.ownOn = phone
    await this.tell(call, 'call.own-answered', {})
    for (const one of call.own) this.show(one)
    this.later(this.pace.ringing, call, () => this.beginRinging(call))
    return true
  }

  private async takeOn(call: Call, phone: string): Promise<boolean> {
    const desk = call.ownDesks[phone]
    if (call.state !== 'ringing' || !call.own.includes(phone) || desk === undefined) return false
    call.ownOn = phone
    await this.tell(call, 'call.taken', { desk })
    return this.answer(call, 'person')
  }

  /** The others ring on; with the last of them the call is over, if it was ours. */
  async declineOwn(call: Call, phone: string): Promise<boolean> {
    if (call.direction === 'in' && call.own.includes(phone)) {
      call.own = call.own.filter(one => one !== phone)
      this.show(phone)
      return true
    }
    if (call.state !== 'own-ringing' || !call.own.includes(phone)) return false
    call.own = call.own.filter(one => one !== phone)
    this.show(phone)
    return call.own.length > 0 || this.end(call, 'own-no-answer', 'us')
  }

  /** Puts one of our customer's people on a call, or takes one off: those who are on it hear one another, whoever is on hold does not. */
  seat(call: Call, desk: string, on: boolean): boolean {
    if (call.state !== 'talking') return false
    call.desks = [...call.desks.filter(one => one !== desk), ...(on ? [desk] : [])]
    this.show(call.phone)
    return true
  }

  /** Tones of the keys, for a machine at the other end. What they were is told to nobody: it may be secret. */
  sendTones(call: Call, tones: string): boolean {
    if (call.state !== 'talking' || call.toMailbox) return false
    call.tones = `${call.tones}${tones}`.slice(-MOST_TONES)
    this.show(call.phone)
    return true
  }

  /** Says what was recorded, and hangs up; whoever dialled is free meanwhile. */
  async leave(call: Call, sound: Buffer): Promise<boolean> {
    const ms = lengthOf(sound)
    if (call.state !== 'talking' || call.direction === 'in' || ms === null) return false
    call.state = 'leaving'
    this.turnTape(call, false)
    await this.tell(call, 'call.leaving', {})
    this.later(ms * this.pace.speaking, call, async () => {
      await this.tell(call, 'call.left', {})
      await this.end(call, 'hung-up', 'us')
    })
    return true
  }

  /** Somebody calls one of our customer's lines from a telephone. */
  async callFrom(phone: string, line: string): Promise<Call> {
    const call: Call = { id: randomUUID(), key: null, direction: 'in', line, phone, state: 'ringing', ...QUIET }
    this.calls.set(call.id, call)
    await this.tell(call, 'call.incoming', {})
    this.later(this.pace.patience, call, async () => {
      if (call.state === 'ringing') await this.end(call, 'no-answer', 'network')
    })
    return call
  }

  async answer(call: Call, by: 'person' | 'machine'): Promise<boolean> {
    if (call.state !== 'ringing') return false
    call.state = 'talking'
    // what rang along rings no more
    if (call.direction === 'in') call.own = call.own.filter(one => one === call.ownOn)
    await this.tell(call, 'call.answered', { by })
    if (by === 'person' && call.toRecord) await this.turn(call, 'record', true)
    return true
  }

  /** Our customer's mailbox takes the call: it greets, and records what is said until the caller hangs up. */
  async takeMessage(call: Call, greeting = ''): Promise<boolean> {
    call.greeting = greeting
    if (call.direction !== 'in' || !(await this.answer(call, 'machine'))) return false
    call.toMailbox = true
    this.tapes.set(call.id, { of: 'message', ms: 0, since: Date.now() })
    this.show(call.phone)
    return true
  }

  async turn(call: Call, what: 'hold' | 'mute' | 'record', on: boolean): Promise<boolean> {
    if (call.state !== 'talking' || call.toMailbox) return false
    if (what === 'record' && call.recording === on) return true
    call[what === 'hold' ? 'held' : what === 'mute' ? 'muted' : 'recording'] = on
    if (what === 'record') this.turnTape(call, on)
    await this.tell(call, 'call.switched', { what, on })
    return true
  }

  async end(call: Call, why: End, side: 'us' | 'them' | 'network'): Promise<boolean> {
    if (call.state === 'ended') return false
    call.state = 'ended'
    this.turnTape(call, false)
    await this.tell(call, 'call.ended', { why, side })
    const tape = this.tapes.get(call.id)
    if (tape && tape.ms > 0) await this.tell(call, 'call.recorded', { ms: tape.ms, of: tape.of })
    await this.charge(call)
    return true
  }

  /** Each minute that was begun after the answer of a call that our customer has made. */
  private async charge(call: Call): Promise<void> {
    const answered = this.events.find(({ type, data }) => type === 'call.answered' && data.id === call.id)
    if (call.direction !== 'out' || !answered) return
    const minutes = Math.max(1, Math.ceil((Date.now() - Date.parse(answered.at)) / 60_000))
    await this.tell(call, 'call.charged', { price: { micros: minutes * MICROS_A_MINUTE, currency: 'USD' } })
  }

  /** What was recorded of a call, as made-up sound; null if nothing was. */
  soundOf(id: string): Buffer | null {
    const told = this.events.find(({ type, data }) => type === 'call.recorded' && data.id === id)
    return told ? madeUpSound(id, told.data.ms!, told.data.of === 'message' ? 1 : 2) : null
  }

  private turnTape(call: Call, on: boolean): void {
    const tape = this.tapes.get(call.id) ?? { of: 'call' as const, ms: 0, since: null }
    const ms = tape.ms + (tape.since === null ? 0 : Date.now() - tape.since)
    if (on || ms > 0) this.tapes.set(call.id, { ...tape, ms, since: on ? Date.now() : null })
  }

  mannerOf = (phone: string): Manner => this.manners.get(phone) ?? mannerOf(phone)

  async setManner(phone: string, manner: Manner): Promise<void> {
    const entry: Entry = { do: 'manner', phone, manner }
    this.apply(entry)
    await this.journal.append(entry)
    this.show(phone)
  }

  /** The call that a telephone is in, or that rings on it. */
  onPhone = (phone: string): Call | null =>
    [...this.calls.values()].findLast(
      call => call.state !== 'ended' && (call.phone === phone ? call.state !== 'own-ringing' : this.isOwn(call, phone)),
    ) ?? null

  /** Whether it is our customer's side of a call that this telephone has, or that rings on it. */
  isOwn = ({ own, ownOn }: Call, phone: string): boolean => (ownOn === null ? own.includes(phone) : ownOn === phone)

  private async beginRinging(call: Call): Promise<void> {
    const manner = this.mannerOf(call.phone)
    if (this.isOff(call.phone)) return void (await this.end(call, 'unreachable', 'network'))
    if (manner === 'no-such-number') return void (await this.end(call, 'no-such-number', 'network'))
    if (manner === 'busy' || this.isEngaged(call)) return void this.later(this.pace.busy, call, () => this.end(call, 'busy', 'them'))
    await this.tell(call, 'call.ringing', {})
    if (manner === 'picks-up') this.later(this.pace.pickUp, call, () => this.answer(call, 'person'))
    if (manner === 'mailbox') {
      this.later(this.pace.mailbox, call, async () => {
        await this.answer(call, 'machine')
        this.later(this.pace.mailboxTakes, call, () => this.end(call, 'hung-up', 'them'))
      })
    }
    this.later(this.pace.patience, call, async () => {
      if (call.state === 'ringing') await this.end(call, 'no-answer', 'network')
    })
  }

  private isEngaged(call: Call): boolean {
    return [...this.calls.values()].some(other => other !== call && other.phone === call.phone && other.state === 'talking')
  }

  /** What has ended meanwhile stays so. */
  private later(ms: number, call: Call, act: () => Promise<unknown>): void {
    setTimeout(() => {
      if (call.state !== 'ended') void act()
    }, ms).unref()
  }

  private async tell(call: Call, type: CallEvent['type'], more: Partial<CallEvent['data']>): Promise<void> {
    const { id, key, direction, line, phone } = call
    const event: CallEvent = {
      id: `call-${randomUUID()}`,
      type,
      at: new Date().toISOString(),
      data: { id, key, direction, line, phone, ...more },
    }
    this.events.push(event)
    await this.journal.append({ do: 'event', event })
    this.reporter.send(event, 0)
    for (const one of [phone, ...call.own, ...Object.keys(call.ownDesks)]) this.show(one)
  }

  private show(phone: string): void {
    for (const seen of this.watchers) seen(phone)
  }

  private apply(entry: Entry): void {
    if (entry.do === 'manner') return void this.manners.set(entry.phone, entry.manner)
    if (entry.do === 'never') return void this.notToBe.add(entry.key)
    const {
      type,
      data: { id, key, direction, line, phone },
    } = entry.event
    this.events.push(entry.event)
    const known = this.calls.get(id) ?? { id, key, direction, line, phone, state: 'ringing' as const, ...QUIET }
    this.calls.set(id, { ...known, state: type === 'call.ended' ? 'ended' : type === 'call.answered' ? 'talking' : known.state })
    if (key) this.byKey.set(key, id)
  }
}
