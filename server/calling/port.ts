import type { CallEvent } from '~~/core/call/facts'

/** What a person can tell an exchange to do with a call. */
export const ORDERS = ['hang-up', 'answer', 'decline', 'hold', 'resume', 'mute', 'unmute', 'record', 'stop-recording'] as const
export type Order = typeof ORDERS[number]

/** What our mailbox does, and no person tells it. */
export type OwnOrder = 'take-message'

/** `key` is our own name for a call of ours; `incoming` begins one that we do not know yet. */
export type ExchangeEvent = { id: string, ref: string, key: string | null } & (
  | { kind: 'happened', event: CallEvent }
  | { kind: 'incoming', at: Date, line: string, other: string }
  /** Something was recorded, and can be fetched. */
  | { kind: 'recorded', of: 'call' | 'message' }
)

export type DialAnswer = { kind: 'dialling', ref: string } | { kind: 'refused', code: string } | { kind: 'unreachable' }

/** What Plauder needs of a telephone exchange, whichever it is. */
export interface Exchange {
  name: string
  /** Calls a number from a line. The key makes asking twice one call; a call to be recorded is so from the answer on, and announced. Never throws for what can go wrong outside. */
  dial: (call: { key: string, from: string, to: string, record: boolean }) => Promise<DialAnswer>
  /** `gone`: the exchange knows no such call any more. */
  order: (ref: string, order: Order | OwnOrder) => Promise<'done' | 'not-now' | 'gone' | 'unreachable'>
  /** Everything that happened since a cursor, for events that got lost. */
  eventsSince: (cursor: string) => Promise<{ events: ExchangeEvent[], cursor: string }>
  /** The sound of a recording, as a WAV file; null if there is none. Throws where the exchange cannot be reached. */
  recordingOf: (ref: string) => Promise<Buffer | null>
  /** Reads a report to us; null unless its signature is right and fresh. */
  readReport: (rawBody: Buffer, headers: Record<string, string | undefined>) => ExchangeEvent | null
}

let used: Exchange | null = null

export function registerExchange(exchange: Exchange): void {
  used = exchange
}

export function theExchange(): Exchange {
  if (!used) throw new Error('No exchange is registered.')
  return used
}
