/**
 * Offsets of one time zone over time: `offsets[i]` minutes east of UTC hold until `untils[i]`.
 * Small enough to be sent to a browser, whose own rules may be older than the law.
 */
export interface ZoneRules {
  name: string
  /** Epoch milliseconds at which the piece ends; null for the last, which does not end. */
  untils: (number | null)[]
  /** Minutes east of UTC. */
  offsets: number[]
}

/** Index of the piece of the rules that holds at an instant. */
export function pieceAt(rules: ZoneRules, instant: number): number {
  let low = 0
  let high = rules.untils.length - 1
  while (low < high) {
    const middle = (low + high) >> 1
    if (instant < (rules.untils[middle] ?? Infinity)) high = middle
    else low = middle + 1
  }
  return low
}

/** The part of a zone's rules that covers a span, for a reader who needs no more. */
export function rulesBetween(rules: ZoneRules, from: number, to: number): ZoneRules {
  const first = pieceAt(rules, from)
  const last = pieceAt(rules, to)
  return {
    name: rules.name,
    untils: [...rules.untils.slice(first, last), null],
    offsets: rules.offsets.slice(first, last + 1),
  }
}
