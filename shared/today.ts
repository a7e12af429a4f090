import type { MessageState } from '../core/message/states'
import type { TaskDetail } from './calling'
import type { PersonModule } from './modules'

/** Something to do, with the number to call for it, if there is one. */
export interface TodayTask extends TaskDetail { phoneId: string | null }

export interface FailedText {
  id: string
  at: number
  state: MessageState
  code: string | null
  remote: string
  words: string | null
  recordId: string | null
  name: string | null
}

export interface FreshRecord { id: string, name: string, module: PersonModule, title: string | null, city: string | null, madeAt: number }

/** What is mine to do today. Who waits for an answer and which calls are open is on the shelf already. */
export interface Today {
  due: TodayTask[]
  /** Later on the same day of mine. */
  later: TodayTask[]
  /** On the next working day, or until then. */
  soon: TodayTask[]
  failed: FailedText[]
  fresh: FreshRecord[]
  /** Of those whom I lead, each; null for who leads nobody. */
  team: TeamDay[] | null
  /** Carriers of lines that I answer for and that cannot be reached; empty for who leads nobody. */
  away: CarrierAway[]
  /** Who waits on the lines that I answer for; null for who leads nobody. */
  lines: LineWaiting[] | null
}

/** A carrier that cannot be reached. */
export interface CarrierAway {
  title: string
  /** Epoch milliseconds; null where it has never been reached. */
  since: number | null
  why: string | null
  /** The lines over it, by name. */
  lines: string[]
}

/** Those who wait for an answer over a line. */
export interface LineWaiting {
  id: string
  name: string
  /** The team or the colleague whose line it is. */
  whose: string
  waiting: number
  withNobody: number
  /** Since when the first of them waits, epoch milliseconds. */
  oldest: number
}

/** How a colleague's day goes. */
export interface TeamDay {
  id: string
  name: string
  /** Texts sent and calls made since midnight of mine, and of these calls how many reached somebody. */
  texts: number
  calls: number
  reached: number
  /** Calls of theirs that nobody has said of how they went. */
  open: number
  /** What they have promised and is overdue. */
  overdue: number
  failed: number
}
