import type { CarrierReport } from '~~/core/message/states'
import type { Shift } from '~~/core/text/national'

/** A text as it is handed over. The key makes asking twice the same as asking once. */
export interface CarrierText {
  key: string
  from: string
  to: string
  text: string
  /** The national tables to say it in; null lets the carrier choose between the default alphabet and UCS-2. */
  shift: Shift | null
  pictures: { type: string, bytes: Buffer }[]
  confirmsOptOut: boolean
}

export type HandOverAnswer
  = | { kind: 'accepted', ref: string, parts: number, costMicros: number, currency: string }
    | { kind: 'refused', code: string }
    /** `certain`: the carrier surely has not taken it. Otherwise its answer was lost, and it may have. */
    | { kind: 'try-later', afterMs: number | null, certain: boolean, code: string }

/** What a carrier tells: what became of a text of ours, or a text for us. */
export type CarrierEvent = { id: string, at: Date } & (
  | { kind: CarrierReport, ref: string, key: string | null, code: string | null }
  | { kind: 'received', ref: string, from: string, to: string, text: string }
)

export interface CarrierPrices {
  prices: { country: string, microsPerPart: number, /** Null where no pictures go. */ microsPerPicture: number | null, currency: string }[]
  mostParts: number
  mostPictures: number
  /** Of each picture. */
  mostPictureBytes: number
}

/** What Plauder needs of a carrier, whichever it is. */
export interface Carrier {
  name: string
  /** Takes a text. Never throws for what can go wrong outside. */
  hand: (text: CarrierText) => Promise<HandOverAnswer>
  /** Reads a report to us; null unless its signature is right and fresh. */
  readReport: (rawBody: Buffer, headers: Record<string, string | undefined>) => CarrierEvent | null
  /** Everything that happened since a cursor, for events that got lost. */
  eventsSince: (cursor: string) => Promise<{ events: CarrierEvent[], cursor: string }>
  prices: () => Promise<CarrierPrices>
}
