import type { HoldReason } from './hold'
import type { MessageState } from './states'

/** What each state is called where a person reads it. */
export const STATE_WORDS: Record<MessageState, string> = {
  'waiting': 'Waits to leave',
  'handing-over': 'Leaving',
  'held': 'Held back',
  'taken-back': 'Taken back, never sent',
  'failed': 'Failed',
  'not-known': 'Not known whether it left',
  'accepted': 'With the carrier',
  'unreported': 'No report for 72 hours',
  'sent': 'Sent',
  'undelivered': 'Not delivered',
  'delivered': 'Delivered',
}

export interface Explanation {
  /** Why, in plain words. */
  why: string
  /** What to do next. */
  then: string
  /** Whether trying the same text again can make sense. */
  retry: boolean
}

/** Reasons for which our own rules hold a text back. */
const HELD: Record<HoldReason, Explanation> = {
  'opted-out': {
    why: 'This number has opted out.',
    then: 'Call, or wait until START comes from it. No text leaves until then.',
    retry: false,
  },
  'night': { why: 'It is night there.', then: 'Send it in the morning, or say that it may leave at night.', retry: true },
  'closed-day': {
    why: 'It is a day on which nobody there is reached.',
    then: 'Send it on the next day, or say that it may leave now.',
    retry: true,
  },
  'place-hours': {
    why: 'It is outside of the hours in which people there are reached.',
    then: 'Send it in those hours, or say that it may leave now.',
    retry: true,
  },
  'wish': {
    why: 'It is outside of the hours in which they want to be reached.',
    then: 'Send it in their hours, or say that it may leave now.',
    retry: true,
  },
  'zone-unknown': {
    why: 'Nobody knows what time it is there.',
    then: 'Put an address or a time zone on the record, or say that it may leave now.',
    retry: true,
  },
  'line-closed': { why: 'The line it was to leave from is not in use.', then: 'Choose another line and send it again.', retry: false },
  'texting-off': { why: 'Texting is switched off for the firm.', then: 'Ask an admin to switch it on.', retry: true },
  'late': {
    why: 'It could not leave at the time for which it was meant, and that was too long ago.',
    then: 'Read it again, and send it now if it still holds.',
    retry: true,
  },
  'carrier-away': {
    why: 'The carrier could not be reached for an hour. It surely has not left.',
    then: 'Send it now if it still holds, or take it back.',
    retry: true,
  },
  'broken': {
    why: 'Something broke on our side while it was to leave. It surely has not left, and an admin can see why.',
    then: 'Send it now, or take it back.',
    retry: true,
  },
  'number-unusable': { why: 'The number cannot be used.', then: 'Correct the number on the record.', retry: false },
  'no-balance': { why: 'The balance does not cover this text.', then: 'Ask an admin to add to the balance.', retry: true },
}

/** Codes of the carrier port, whatever carrier stands behind it. */
const CARRIER: Record<string, Explanation> = {
  'recipient-opted-out': {
    why: 'The carrier knows this number as opted out.',
    then: 'Call instead. The person has to text START to the line.',
    retry: false,
  },
  'recipient-not-mobile': {
    why: 'The number takes no texts; it is probably a landline.',
    then: 'Call it, or choose another number.',
    retry: false,
  },
  'recipient-unknown': { why: 'No telephone has this number.', then: 'Check the number with the person.', retry: false },
  'recipient-unreachable': { why: 'The telephone was off or out of reach for too long.', then: 'Try again later, or call.', retry: true },
  'country-not-allowed': { why: 'This line may not text that country.', then: 'Send it from a line in the same country.', retry: false },
  'sender-unknown': { why: 'The carrier does not know this line.', then: 'Ask an admin to look at the line.', retry: false },
  'too-long': { why: 'The text has more parts than the carrier takes.', then: 'Shorten it, or send it as two.', retry: false },
  'pictures-not-allowed': {
    why: 'No pictures go from this line to that country.',
    then: 'Take the pictures out and send it again.',
    retry: false,
  },
  'too-many-pictures': { why: 'The carrier takes fewer pictures in one text.', then: 'Take some out and send it again.', retry: false },
  'picture-not-taken': { why: 'The carrier does not take this picture.', then: 'Take it out, or put another one in.', retry: false },
  'deleted': { why: 'The carrier took it out before it had arrived.', then: 'Try again, or call.', retry: true },
  'blocked': { why: 'A network filter stopped it.', then: 'Word it more plainly, without a shortened link.', retry: false },
  'not-authorised': { why: 'The carrier did not accept our credentials.', then: 'Ask an admin to look at the carrier.', retry: true },
  'bad-request': { why: 'The carrier could not read the request.', then: 'Try again; if it happens again, tell an admin.', retry: true },
  'carrier-unreachable': { why: 'The carrier could not be reached for an hour.', then: 'Try again when it is back.', retry: true },
  'answer-lost': {
    why: 'The connection broke before the carrier answered.',
    then: 'Ask the person, or try again: it may then arrive twice.',
    retry: true,
  },
}

/** Why a text did not arrive and what to do, for a state and its code; null where there is nothing to explain. */
export function explain(state: MessageState, code: string | null): Explanation | null {
  if (state === 'held') return HELD[code as HoldReason] ?? null
  if (state === 'unreported')
    return { why: 'The carrier never said what became of it.', then: 'Call, or ask whether it arrived.', retry: false }
  if (state === 'failed' || state === 'undelivered' || state === 'not-known') {
    return (
      CARRIER[code ?? ''] ?? {
        why: `The carrier gave the code “${code ?? 'none'}”.`,
        then: 'Try again; if it happens again, tell an admin.',
        retry: true,
      }
    )
  }
  return null
}
