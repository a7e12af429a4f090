/**
 * What a conversation owes: an answer of ours, since when and why, or one at a moment to come. The rules stand here; the
 * statements that write them to the database are held to these by a model test.
 */
export const OWED_FOR = ['text', 'missed-call', 'voicemail', 'put-back', 'handed'] as const
export type OwedFor = typeof OWED_FOR[number]
/** What a talk settles on any line. */
export const OWED_FOR_A_CALL = ['missed-call', 'voicemail'] as const satisfies readonly OwedFor[]

export interface Owed {
  /** Since when an answer is owed, epoch milliseconds; null if none is. */
  since: number | null
  /** What made it owed first. */
  why: OwedFor | null
  /** When it will be owed again, because somebody has put it back for then. */
  returnsAt: number | null
}

export const NOTHING_OWED: Owed = { since: null, why: null, returnsAt: null }

/** What happens with a conversation, each at an instant in epoch milliseconds. */
export type OwedEvent
  /** A text that wants an answer came in: not an order such as STOP, which is answered by itself. */
  = | { kind: 'text-in', at: number }
    /** Somebody has called whom nobody answered, or who has left a message. */
    | { kind: 'missed-call' | 'voicemail', at: number }
    /** A colleague talks with them, since an instant: what comes in during the talk is owed all the same. */
    | { kind: 'talked', at: number }
    /** A colleague has answered, or has said that nothing is needed. */
    | { kind: 'answered' | 'nothing-needed', at: number }
    /** A colleague puts it back: to be owed from now on, or from a moment to come. */
    | { kind: 'put-back', at: number, until: number | null }
    /** It was handed to a colleague or a team, who owe the answer from now on. */
    | { kind: 'handed', at: number }
    /** The moment for which it was put back has come. */
    | { kind: 'due', at: number }
    /** These settle nothing: whoever opens and reads it has not answered, nor has Plauder by itself. */
    | { kind: 'opened' | 'read' | 'automatic', at: number }

/** What is owed after an event. What is owed already stays owed since the first of its reasons. */
export function afterEvent(owed: Owed, event: OwedEvent): Owed {
  switch (event.kind) {
    case 'text-in':
      return { ...owedSince(owed, event.at, 'text'), returnsAt: null }
    case 'missed-call':
    case 'voicemail':
      // the message of a missed call is fetched after it has ended
      return { ...owedSince(owed, event.at, event.kind), ...(owed.since === event.at && { why: event.kind }), returnsAt: null }
    case 'talked':
      return owed.since !== null && owed.since > event.at ? owed : NOTHING_OWED
    case 'handed':
      return owedSince(owed, event.at, 'handed')
    case 'put-back':
      // for a moment to come it leaves what is owed until then
      return event.until !== null && event.until > event.at
        ? { since: null, why: null, returnsAt: event.until }
        : { ...owedSince(owed, event.at, 'put-back'), returnsAt: null }
    case 'due':
      return owed.returnsAt !== null && owed.returnsAt <= event.at
        ? { ...owedSince(owed, owed.returnsAt, 'put-back'), returnsAt: null }
        : owed
    case 'answered':
    case 'nothing-needed':
      return NOTHING_OWED
    case 'opened':
    case 'read':
    case 'automatic':
      return owed
  }
}

const owedSince = (owed: Owed, at: number, why: OwedFor): Owed =>
  owed.since === null ? { ...owed, since: at, why } : { ...owed, since: Math.min(owed.since, at), why: at < owed.since ? why : owed.why }
