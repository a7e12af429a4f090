import type { Manner } from './manners'

export type End = 'hung-up' | 'busy' | 'declined' | 'no-answer' | 'unreachable' | 'no-such-number' | 'network' | 'own-no-answer'

export interface Call {
  id: string
  /** The customer's own name for it; null for one that came from outside. */
  key: string | null
  /** `out`: from one of our customer's lines. */
  direction: 'out' | 'in'
  line: string
  phone: string
  state: 'own-ringing' | 'ringing' | 'talking' | 'leaving' | 'ended'
  /** Our customer's own telephones: they ring before the other one does, and along with what comes in. */
  own: string[]
  /** At which desk each of them stands, of those that ring along. */
  ownDesks: Record<string, string>
  /** The one of them that was picked up. */
  ownOn: string | null
  /** Which of our customer's people are on it, by the names that the customer gives them. */
  desks: string[]
  /** The last tones that were sent along the line. */
  tones: string
  held: boolean
  muted: boolean
  recording: boolean
  /** To be recorded from the answer on. */
  toRecord: boolean
  /** Our customer's mailbox has answered, and the caller speaks to it. */
  toMailbox: boolean
  /** What it said first. */
  greeting: string
}

export interface CallEvent {
  id: string
  type:
    | 'call.incoming'
    | 'call.own-ringing'
    | 'call.own-answered'
    | 'call.ringing'
    | 'call.taken'
    | 'call.answered'
    | 'call.switched'
    | 'call.leaving'
    | 'call.left'
    | 'call.ended'
    | 'call.recorded'
    | 'call.charged'
  at: string
  data: {
    id: string
    key: string | null
    direction: 'out' | 'in'
    line: string
    phone: string
    by?: 'person' | 'machine'
    price?: { micros: number, currency: string }
    what?: 'hold' | 'mute' | 'record'
    on?: boolean
    why?: End
    side?: 'us' | 'them' | 'network'
    ms?: number
    of?: 'call' | 'message'
    desk?: string
  }
}

/** A line of the exchange's journal. */
export type Entry = { do: 'event', event: CallEvent } | { do: 'manner', phone: string, manner: Manner } | { do: 'never', key: string }

/** Milliseconds until something happens on a line. */
export interface ExchangePace {
  ringing: number
  pickUp: number
  mailbox: number
  mailboxTakes: number
  patience: number
  busy: number
  /** How many times as long as it is a spoken message takes. */
  speaking: number
}
export const USUAL_PACE: ExchangePace = {
  ringing: 300,
  pickUp: 3_000,
  mailbox: 9_000,
  mailboxTakes: 45_000,
  patience: 30_000,
  busy: 900,
  speaking: 1,
}
