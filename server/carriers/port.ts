import type { NumberState } from '~~/core/lines/life'
import type { PortingWord } from '~~/core/lines/porting'
import type { CarrierReport } from '~~/core/message/states'
import type { Money } from '~~/core/numbers/money'
import type { Papers, PapersWord } from '~~/core/papers/papers'
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

/** What a text costs and in how many parts it went: some carriers say so at once, some with a report, some never. */
export interface Charge { parts: number, costMicros: number, currency: string }

export type HandOverAnswer
  = | { kind: 'accepted', ref: string, charge: Charge | null }
    | { kind: 'refused', code: string }
    /** `certain`: the carrier surely has not taken it. Otherwise its answer was lost, and it may have. */
    | { kind: 'try-later', afterMs: number | null, certain: boolean, code: 'carrier-unreachable' | 'answer-lost' }
    /** It is there and takes texts, but no more of them now. */
    | { kind: 'no-room', afterMs: number }
    /** It may have taken it, and there is no key under which it could be asked again: a person decides. */
    | { kind: 'not-known' }

/** What a carrier tells: what became of a text of ours, or a text for us. */
export type CarrierEvent = { id: string, at: Date } & (
  | { kind: CarrierReport, ref: string, key: string | null, code: string | null }
  | { kind: 'charged', ref: string, key: string | null, charge: Charge }
  /** What a number of ours is now, and what it has cost to be so. */
  | { kind: 'number', e164: string, state: NumberState, until: Date, charge: Money | null }
  /** How far a number is that is being brought over; the calendar day on which it comes, once that is agreed. */
  | { kind: 'porting', e164: string, word: PortingWord, day: string | null, words: string }
  /** What it thinks of papers that it has. */
  | { kind: 'papers', country: string, word: PapersWord, words: string }
  /** It reaches us: the answer to our own hello. */
  | { kind: 'hello', nonce: string }
  /** With the names of pictures that came with it, to be fetched. */
  | { kind: 'received', ref: string, from: string, to: string, text: string, pictures?: string[] }
)

export interface CarrierPrices {
  prices: { country: string, microsPerPart: number, /** Null where no pictures go. */ microsPerPicture: number | null, currency: string }[]
  mostParts: number
  mostPictures: number
  /** Of each picture. */
  mostPictureBytes: number
}

/** A number that a carrier has given to its customer. */
export interface CarrierNumber {
  e164: string
  country: string
  state: NumberState
  /** When it will be there, until when it is paid, or since when it has ended. */
  until: Date
  /** A month. */
  rent: Money
}

/** A number that can be had. */
export interface NumberOffer {
  e164: string
  country: string
  place: string
  does: ('text' | 'picture' | 'call')[]
  /** A month. */
  rent: Money
  /** Once, with the first month. */
  setUp: Money
  /** In how many days it is there. */
  days: number
}

/** What a carrier has to know of a number that is ours elsewhere. */
export interface PortingWish { from: string, account: string, /** A calendar day; empty: as soon as it can be. */ wishedDay: string }

/** A carrier that rents numbers out. Each step taken again is the step once. @throws while it cannot be reached */
export interface NumberRental {
  /** The numbers that it has given us. */
  numbers: () => Promise<CarrierNumber[]>
  /** @param wish a country, part of a place's name, digits in a row; each may be empty */
  offers: (wish: { country: string, place: string, digits: string }) => Promise<NumberOffer[]>
  /** @returns null where there is no such number to be had */
  take: (e164: string) => Promise<CarrierNumber | null>
  /** It ends when its paid month is over. */
  end: (e164: string) => Promise<CarrierNumber | null>
  /** Brings one over that another carrier has; left out where that is done by hand. False where it cannot. */
  bring?: (e164: string, wish: PortingWish) => Promise<boolean>
  /** It is not to end after all. */
  keep: (e164: string) => Promise<CarrierNumber | null>
}

/** A file as it goes with papers. */
export interface PapersFile { name: string, type: string, bytes: Buffer }

/** A carrier that takes papers by itself, and tells what it thinks of them. @throws while it cannot be reached */
export interface PapersDesk {
  /** For which countries it wants any, and in how many days it answers. */
  wants: () => Promise<{ country: string, leastDays: number, mostDays: number }[]>
  /** Handed in again while they lie there they are the same. */
  handIn: (country: string, papers: Papers, files: PapersFile[]) => Promise<{ ref: string }>
}

/** A carrier that tells us by itself, over HTTP. */
export interface Webhook {
  /** Whether a report to us is signed by this carrier, a moment ago. */
  isSigned: (rawBody: Buffer, headers: Record<string, string | undefined>) => boolean
}

/** A carrier to which a connection stays open, over which it tells us. */
export interface Session {
  /**
   * Connects, and again whenever the connection breaks, until stopped.
   *
   * @param tell takes one thing that was told; resolves once it is committed, so that it may be acknowledged
   * @returns how to stop
   */
  start: (tell: (told: unknown) => Promise<void>) => () => Promise<void>
}

/** Whether a carrier to which a connection stays open can be reached, and since when; `why` not, in words for an admin. */
export interface CarrierState { is: 'connecting' | 'connected' | 'away', since: number, why: string | null }

/** What Plauder needs of a carrier, whichever it is. What its protocol does not have is left out. */
export interface Carrier {
  /** By which lines, messages and events name it; it never changes. */
  name: string
  /** As an admin reads it. */
  title: string
  /** Takes a text. Never throws for what can go wrong outside. */
  hand: (text: CarrierText) => Promise<HandOverAnswer>
  /**
   * Reads what the carrier tells.
   *
   * @throws Yup's ValidationError for what is none of its events
   */
  readEvent: (told: unknown) => CarrierEvent
  webhook?: Webhook
  session?: Session
  /** Null as long as nobody has asked it anything. */
  state?: () => CarrierState | null
  /** Its protocol has no key against doubles: what may have been asked before is not asked again. */
  keyless?: boolean
  /** Everything that it has told since a cursor, for events that got lost. */
  eventsSince?: (cursor: string) => Promise<{ told: unknown[], cursor: string }>
  /**
   * The bytes of a picture that came in; null where there is none any more.
   *
   * @throws while it cannot be reached: it is asked again
   */
  pictureOf?: (name: string) => Promise<Buffer | null>
  /** Without a list of prices a text shows none before it goes. */
  prices?: () => Promise<CarrierPrices>
  /** Left out by one of which numbers are had in another way. */
  rental?: NumberRental
  /** Left out by one to which papers are brought by hand. */
  papers?: PapersDesk
}
