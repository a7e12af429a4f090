import type { CallEvent } from '~~/core/call/facts'
import type { Money } from '~~/core/numbers/money'
import { conflict } from '../http/problem'

/** What a person can tell an exchange to do with a call. */
export const ORDERS = ['hang-up', 'answer', 'decline', 'hold', 'resume', 'mute', 'unmute', 'record', 'stop-recording'] as const
export type Order = typeof ORDERS[number]

/** `key` is our own name for a call of ours; `incoming` begins one that we do not know yet. */
export type ExchangeEvent = { id: string, ref: string, key: string | null } & (
  | { kind: 'happened', event: CallEvent }
  | { kind: 'incoming', at: Date, line: string, remote: string }
  /** A telephone that rang along was picked up: whose it is has the call. */
  | { kind: 'taken', desk: string }
  /** Something was recorded, and can be fetched. */
  | { kind: 'recorded', of: 'call' | 'message' }
  /** What it has cost. */
  | { kind: 'charged', at: Date, charge: Money }
)

/** A telephone of one of ours. */
export interface OwnTelephone { number: string, desk: string }

/** What an exchange says to what it was told. */
export type OrderAnswer = 'done' | 'not-now' | 'gone' | 'unreachable'

/** A call to be made. */
export interface ToDial {
  /** Our own name for it: asking twice with one is one call. */
  key: string
  from: string
  to: string
  /** Recorded from the answer on, and announced. */
  record: boolean
  /** Telephones of ours that ring first; whichever is picked up has the call. None: it is made in the browser. */
  ringFirst: string[]
  /** Who of ours is on it. */
  desk: string
}

/** `not-known`: the answer was lost, so that it may ring there. */
export type DialAnswer
  = { kind: 'dialling', ref: string } | { kind: 'refused', code: string } | { kind: 'unreachable' } | { kind: 'not-known' }

/** What became of a call by our own name for it. `never`: it was not dialled, and under this name it never will be. */
export type WhatBecame = { kind: 'dialling', ref: string } | { kind: 'never' } | { kind: 'unreachable' }

/** What Plauder needs of a telephone exchange, whichever it is. */
export interface Exchange {
  name: string
  /** Calls a number from a line. Never throws for what can go wrong outside. */
  dial: (call: ToDial) => Promise<DialAnswer>
  /** Asks after a call of which the answer to `dial` was lost. */
  whatBecameOf: (key: string) => Promise<WhatBecame>
  /** `gone`: the exchange knows no such call any more. */
  order: (ref: string, order: Order) => Promise<OrderAnswer>
  /** Our mailbox takes a call that rings: it says these words, and records what the caller says. */
  takeMessage: (ref: string, greeting: string) => Promise<OrderAnswer>
  /** Puts one of ours on a call, or takes one off: those on it hear one another, and whoever is on hold hears none of them. */
  seat: (ref: string, desk: string, on: boolean) => Promise<OrderAnswer>
  /**
   * Rings telephones of ours along with a call that comes in, each of somebody's desk, and records from the answer on or not.
   * Those that ring already ring on.
   */
  ringAlong: (ref: string, phones: OwnTelephone[], record: boolean) => Promise<OrderAnswer>
  /** Tones of the keys 0 to 9, * and #, for a machine at the other end. */
  tones: (ref: string, tones: string) => Promise<OrderAnswer>
  /** Says what was recorded, a WAV file, and hangs up; whoever was on the call is free at once. */
  leave: (ref: string, sound: Buffer) => Promise<OrderAnswer>
  /** Everything that happened since a cursor, for events that got lost. */
  eventsSince: (cursor: string) => Promise<{ told: unknown[], cursor: string }>
  /** The sound of a recording, as a WAV file; null if there is none. Throws where the exchange cannot be reached. */
  recordingOf: (ref: string) => Promise<Buffer | null>
  /** Whether a report to us is signed by this exchange, a moment ago. */
  isSigned: (rawBody: Buffer, headers: Record<string, string | undefined>) => boolean
  /**
   * Reads what the exchange tells, parsed as JSON.
   *
   * @throws Yup's ValidationError for what is none of its events
   */
  readEvent: (told: unknown) => ExchangeEvent
}

let used: Exchange | null = null

export function registerExchange(exchange: Exchange): void {
  used = exchange
}

/** @throws Problem 409 `no-exchange` where Plauder only texts */
export function theExchange(): Exchange {
  if (!used)
    throw conflict('no-exchange', 'No telephone', 'No telephone exchange is connected here, so nobody can be called. Ask an admin.')
  return used
}
