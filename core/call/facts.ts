/** Why a call ended, whichever side it came from. */
export const CALL_ENDS = ['hung-up', 'busy', 'declined', 'no-answer', 'unreachable', 'no-such-number', 'network', 'own-no-answer'] as const
export type CallEnd = typeof CALL_ENDS[number]
export const SIDES = ['us', 'them', 'network'] as const
export type Side = typeof SIDES[number]
export const ANSWERED_BY = ['person', 'machine'] as const
export type AnsweredBy = typeof ANSWERED_BY[number]

/** What is switched during a call. */
export const SWITCHES = ['hold', 'mute', 'record'] as const
export type SwitchKind = typeof SWITCHES[number]
export interface Switch { what: SwitchKind, on: boolean, at: number }

/** What the exchange tells of a call. Instants are epoch milliseconds of the exchange's clock. */
export type CallEvent = { at: number } & (
  /** My own telephone rings first, where I call with it, and is picked up. */
  | { kind: 'own-ringing' }
  | { kind: 'own-answered' }
  | { kind: 'ringing' }
  | { kind: 'answered', by: AnsweredBy }
  /** A spoken message is being left: our side has gone on to something else. Then all of it is said. */
  | { kind: 'leaving' }
  | { kind: 'left' }
  | { kind: 'switched', what: SwitchKind, on: boolean }
  | { kind: 'ended', why: CallEnd, side: Side }
)

/** All that is known of a call. What state it is in follows from it. */
export interface CallFacts {
  madeAt: number
  ownRingingAt: number | null
  ownAnsweredAt: number | null
  ringingAt: number | null
  answeredAt: number | null
  answeredBy: AnsweredBy | null
  leavingAt: number | null
  leftAt: number | null
  endedAt: number | null
  end: { why: CallEnd, side: Side } | null
  /** In the order in which they were done. */
  switches: Switch[]
}

export type CallState = 'own-phone' | 'dialling' | 'ringing' | 'talking' | 'held' | 'leaving' | 'ended'

export const newCall = (madeAt: number): CallFacts => ({
  madeAt,
  ownRingingAt: null,
  ownAnsweredAt: null,
  ringingAt: null,
  answeredAt: null,
  answeredBy: null,
  leavingAt: null,
  leftAt: null,
  endedAt: null,
  end: null,
  switches: [],
})

/**
 * A call with one more event. It makes no difference in which order events come, nor how often: of two that cannot
 * both be, the one that happened first is right, and of two of one instant the one that stands first in the lists above.
 */
export function withEvent(facts: CallFacts, event: CallEvent): CallFacts {
  switch (event.kind) {
    case 'own-ringing':
      return { ...facts, ownRingingAt: earliest(facts.ownRingingAt, event.at) }
    case 'own-answered':
      return { ...facts, ownAnsweredAt: earliest(facts.ownAnsweredAt, event.at) }
    case 'ringing':
      return { ...facts, ringingAt: earliest(facts.ringingAt, event.at) }
    case 'leaving':
      return { ...facts, leavingAt: earliest(facts.leavingAt, event.at) }
    case 'left':
      return { ...facts, leftAt: earliest(facts.leftAt, event.at) }
    case 'answered': {
      const first = facts.answeredAt === null || event.at < facts.answeredAt || (event.at === facts.answeredAt && event.by === 'person')
      return first ? { ...facts, answeredAt: event.at, answeredBy: event.by } : facts
    }
    case 'switched': {
      const { what, on, at } = event
      const known = facts.switches.some(one => one.what === what && one.on === on && one.at === at)
      return known ? facts : { ...facts, switches: [...facts.switches, { what, on, at }].sort(inOrder) }
    }
    case 'ended': {
      const { at, why, side } = event
      const first
        = facts.endedAt === null || at < facts.endedAt || (at === facts.endedAt && rank(why, side) < rank(facts.end!.why, facts.end!.side))
      return first ? { ...facts, endedAt: at, end: { why, side } } : facts
    }
  }
}

const earliest = (known: number | null, at: number) => Math.min(known ?? Infinity, at)
const rank = (why: CallEnd, side: Side) => CALL_ENDS.indexOf(why) * SIDES.length + SIDES.indexOf(side)
const inOrder = (a: Switch, b: Switch) => a.at - b.at || a.what.localeCompare(b.what) || Number(a.on) - Number(b.on)

/** When somebody or something answered; null for what came only after the end. */
export function answeredAt({ answeredAt: at, endedAt }: CallFacts): number | null {
  return at !== null && (endedAt === null || at <= endedAt) ? at : null
}

/** Whether something is switched on now: as it was switched last. */
export function isOn({ switches }: CallFacts, what: SwitchKind): boolean {
  return switches.findLast(one => one.what === what)?.on ?? false
}

/** When a spoken message began to be left; null for what came before the answer or after the end. */
export function leavingAt(facts: CallFacts): number | null {
  const [answer, at] = [answeredAt(facts), facts.leavingAt]
  return answer !== null && at !== null && at >= answer && (facts.endedAt === null || at <= facts.endedAt) ? at : null
}

export function callState(facts: CallFacts): CallState {
  if (facts.endedAt !== null) return 'ended'
  if (leavingAt(facts) !== null) return 'leaving'
  if (answeredAt(facts) !== null) return isOn(facts, 'hold') ? 'held' : 'talking'
  if (facts.ownRingingAt !== null && facts.ownAnsweredAt === null) return 'own-phone'
  return facts.ringingAt === null ? 'dialling' : 'ringing'
}

/** Whether whoever of us was on it is free again: it is over, or says by itself what was recorded. */
export const isOff = (state: CallState): boolean => state === 'ended' || state === 'leaving'

/** Milliseconds from the answer until our side was off it, or to now while it goes on; 0 for a call that was not answered. */
export function talkMs(facts: CallFacts, now: number): number {
  const from = answeredAt(facts)
  return from === null ? 0 : Math.max(0, (leavingAt(facts) ?? facts.endedAt ?? now) - from)
}

/** What became of a spoken message: all of it was said, or the other side hung up before; null where none was left. */
export function leftMessage(facts: CallFacts): 'left' | 'cut-off' | 'being-left' | null {
  if (leavingAt(facts) === null) return null
  const whole = facts.leftAt !== null && (facts.endedAt === null || facts.leftAt <= facts.endedAt)
  return whole ? 'left' : facts.endedAt === null ? 'being-left' : 'cut-off'
}

/** What became of a call, in one word; null while it goes on. */
export type CallOutcome = 'answered' | 'machine' | Exclude<CallEnd, 'hung-up'> | 'given-up'

export function outcomeOf(facts: CallFacts): CallOutcome | null {
  if (facts.end === null) return null
  if (answeredAt(facts) !== null) return facts.answeredBy === 'machine' ? 'machine' : 'answered'
  return facts.end.why === 'hung-up' ? 'given-up' : facts.end.why
}
