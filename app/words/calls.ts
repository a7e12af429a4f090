import { callState, leftMessage, outcomeOf, talkMs, type CallFacts, type CallOutcome } from '~~/core/call/facts'
import type { Transfer } from '~~/shared/calling'

const OUTCOMES: Record<CallOutcome, string> = {
  'answered': 'talked',
  'machine': 'a mailbox answered',
  'busy': 'busy',
  'declined': 'declined',
  'no-answer': 'no answer',
  'given-up': 'not answered, hung up',
  'unreachable': 'the telephone is off or out of reach',
  'no-such-number': 'there is no such number',
  'network': 'the connection broke',
  'own-no-answer': 'your own telephone was not picked up',
}

/** "3:07", or "1:02:07" when it is long. */
export function sayDuration(ms: number): string {
  const seconds = Math.max(0, Math.floor(ms / 1_000))
  const two = (n: number) => String(n).padStart(2, '0')
  const hours = Math.floor(seconds / 3_600)
  return `${hours > 0 ? `${hours}:${two(Math.floor(seconds / 60) % 60)}` : Math.floor(seconds / 60)}:${two(seconds % 60)}`
}

/** "4 min 51 s". */
export function talked(ms: number): string {
  const seconds = Math.round(ms / 1_000)
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`
}

/** How a call stands: while it is on, and what became of it. */
export function sayCall(facts: CallFacts, direction: 'out' | 'in', now: number): string {
  switch (callState(facts)) {
    case 'own-phone':
      return 'your own telephone rings: pick it up'
    case 'dialling':
      return 'dialling'
    case 'leaving':
      return 'your message is being left'
    case 'ringing':
      return direction === 'in' ? 'calls you' : 'it rings'
    case 'talking':
      return direction === 'in' && facts.answeredBy === 'machine'
        ? 'leaves a message'
        : `${facts.answeredBy === 'machine' ? 'a mailbox, ' : ''}${sayDuration(talkMs(facts, now))}`
    case 'held':
      return `on hold, ${sayDuration(talkMs(facts, now))}`
    case 'ended': {
      const outcome = outcomeOf(facts)!
      if (direction === 'in' && outcome !== 'answered') return 'missed'
      const message = leftMessage(facts)
      if (message) return message === 'left' ? 'a message was left' : 'a message was begun, and cut off'
      return outcome === 'answered' ? `talked ${talked(talkMs(facts, now))}` : OUTCOMES[outcome]
    }
  }
}

/** How a call stands that is being handed to a colleague. */
export function sayTransfer({ state, toMe, from, to, way }: Transfer, name: string): string {
  if (toMe)
    return state === 'asked'
      ? `${from.firstName} hands it to you${way === 'attended' ? ', after a word' : ''}`
      : `you and ${from.firstName} talk, ${name} waits`
  return state === 'asked' ? `rings with ${to.firstName}, ${name} waits` : `you and ${to.firstName} talk, ${name} waits`
}
