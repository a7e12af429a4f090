/**
 * The life of a text that we send.
 *
 *   waiting --claim--> handing-over --accepted--> accepted --> sent --> delivered | undelivered
 *      |                  |  |  \--lost--> not-known            \--72 h without a word--> unreported
 *      |                  |  \--refused--> failed
 *      |                  \--try again--> waiting
 *      \--taken back / held
 *
 * What a carrier reports comes late, twice, out of order or not at all, so reports are ranked, not
 * sequenced: the state after a set of reports does not depend on their order.
 */
export const MESSAGE_STATES = [
  'waiting', 'handing-over', 'held', 'taken-back', 'failed', 'not-known',
  'accepted', 'unreported', 'sent', 'undelivered', 'delivered',
] as const
export type MessageState = typeof MESSAGE_STATES[number]

export type OurEvent = 'claim' | 'try-again' | 'take-back' | 'hold' | 'release' | 'refused' | 'lost' | 'accepted' | 'silence'
export type CarrierReport = 'sent' | 'undelivered' | 'delivered'
export type MessageEvent = OurEvent | CarrierReport

/** What we may do, from where to where. Anything else that we try is an error of ours. */
const OURS: Record<OurEvent, { from: MessageState[], to: MessageState }> = {
  'claim': { from: ['waiting'], to: 'handing-over' },
  'try-again': { from: ['handing-over'], to: 'waiting' },
  'take-back': { from: ['waiting', 'held'], to: 'taken-back' },
  'hold': { from: ['waiting', 'handing-over'], to: 'held' },
  'release': { from: ['held'], to: 'waiting' },
  'refused': { from: ['handing-over'], to: 'failed' },
  'lost': { from: ['handing-over'], to: 'not-known' },
  'accepted': { from: ['handing-over', 'not-known'], to: 'accepted' },
  'silence': { from: ['accepted', 'sent'], to: 'unreported' },
}

/** How much a state says about the text's fate; a report never leads back. Delivered is proof, so it wins over "not delivered". */
export const RANK: Record<MessageState, number> = {
  'waiting': 0, 'held': 0, 'taken-back': 0, 'failed': 0,
  'handing-over': 1, 'not-known': 1, 'accepted': 2, 'unreported': 2,
  'sent': 3, 'undelivered': 4, 'delivered': 5,
}

/** After this long without a report a text counts as unreported. */
export const SILENCE_AFTER = 72 * 3_600_000

const isReport = (event: MessageEvent): event is CarrierReport => !(event in OURS)

/**
 * The state that follows. Reports always have an answer; of our own events those that do not fit
 * the state answer null, and whoever tried has lost a race and must stop.
 */
export function afterEvent(state: MessageState, event: MessageEvent): MessageState | null {
  if (isReport(event)) return RANK[event] > RANK[state] ? event : state
  const step = OURS[event]
  if (step.from.includes(state)) return step.to
  // a report that overtook the carrier's own answer has already said more
  if (event === 'accepted' && RANK[state] > RANK.accepted) return state
  return null
}

/** States from which one of our events may go; the guard of a conditional update. */
export function statesBefore(event: OurEvent): MessageState[] {
  return OURS[event].from
}

/** States in which an event finds a text and says something, though it may have gone further already. */
export function mayFollow(event: MessageEvent): MessageState[] {
  return MESSAGE_STATES.filter(state => afterEvent(state, event) !== null)
}

/** States that a report moves to its own. */
export function movedBy(report: CarrierReport): MessageState[] {
  return MESSAGE_STATES.filter(state => state !== report && afterEvent(state, report) === report)
}

/** Nothing that we do or hear is expected to change these. */
export function isSettled(state: MessageState): boolean {
  return state === 'delivered' || state === 'undelivered' || state === 'failed' || state === 'taken-back'
}
