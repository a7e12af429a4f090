/** The protocols by which a carrier can be connected. */
export const CARRIER_KINDS = ['smpp', 'http'] as const
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

/** A gateway that takes signed texts over HTTP (docs/gateway.md), but for the secret. */
export interface HttpSettings {
  /** Where it takes them. */
  url: string
}

export type CarrierSettings = SmppSettings | HttpSettings

/** How one gets to a carrier. */
export type CarrierWay = { kind: 'smpp', settings: SmppSettings } | { kind: 'http', settings: HttpSettings }

/** The path to which one that tells us by itself reports. */
export const reportPath = (carrier: string): string => `/api/carriers/${carrier}/events`

/** By which lines and messages name what was set up here: the browser may say it before it is kept. */
export const carrierNameOf = (kind: CarrierKind, id: string): string => `${kind}-${id.slice(-8)}`

/** Whether it can be reached, since when (instant), and why not, in words. */
export interface CarrierStateShown { is: 'connecting' | 'connected' | 'away', since: number, why: string | null }

/** A carrier as Set-up shows it. */
export interface SetUpCarrier {
  /** By which lines name it. */
  name: string
  title: string
  /** Null for one that nobody here has set up. */
  account: { id: string } & CarrierWay | null
  /** Null for one to which no connection stays open. */
  state: CarrierStateShown | null
  /** Its lines, by name. */
  lines: string[]
}

/** What came of trying an account. */
export interface CarrierTried { ok: boolean, said: string }
