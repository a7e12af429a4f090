/** The protocols by which a carrier can be connected. */
export const CARRIER_KINDS = ['smpp'] as const
export type CarrierKind = typeof CARRIER_KINDS[number]

/** How an SMS centre lets one in: once for both ways, or twice, for one way each. */
export const BINDS = ['transceiver', 'pair'] as const
export type Bind = typeof BINDS[number]

/**
 * How a text of several parts goes: with a header in each part, with fields beside each part that number them (sar_*),
 * or whole in one piece (message_payload), which the SMS centre cuts itself.
 */
export const LONG_TEXTS = ['header', 'fields', 'whole'] as const
export type LongTexts = typeof LONG_TEXTS[number]

/** An account at an SMS centre, but for its password. */
export interface SmppSettings {
  host: string
  port: number
  tls: boolean
  systemId: string
  systemType: string
  bind: Bind
  longTexts: LongTexts
  /** How many texts may be on their way to it without an answer. */
  window: number
}

export type CarrierSettings = SmppSettings

/** Whether it can be reached, since when (instant), and why not, in words. */
export interface CarrierStateShown { is: 'connecting' | 'connected' | 'away', since: number, why: string | null }

/** A carrier as Set-up shows it. */
export interface SetUpCarrier {
  /** By which lines name it. */
  name: string
  title: string
  /** Null for one that nobody here has set up. */
  account: { id: string, kind: CarrierKind, settings: CarrierSettings } | null
  /** Null for one to which no connection stays open. */
  state: CarrierStateShown | null
  /** Its lines, by name. */
  lines: string[]
}

/** What came of trying an account. */
export interface CarrierTried { ok: boolean, said: string }
