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
    | { kind: 'try-later', afterMs: number | null, certain: boolean, code: 'carrier-unreachable' | 'answer-lost' }
    /** It is there and takes texts, but no more of them now. */
    | { kind: 'no-room', afterMs: number }

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
  /** Whether a report to us is signed by this carrier, a moment ago. */
  isSigned: (rawBody: Buffer, headers: Record<string, string | undefined>) => boolean
  /**
   * Reads what the carrier tells, parsed as JSON.
   *
   * @throws Yup's ValidationError for what is none of its events
   */
  readEvent: (told: unknown) => CarrierEvent
  /** Everything that it has told since a cursor, for events that got lost. */
  eventsSince: (cursor: string) => Promise<{ told: unknown[], cursor: string }>
  prices: () => Promise<CarrierPrices>
}
