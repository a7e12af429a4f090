/** How a telephone takes calls, when nobody sits before its page. */
export const MANNERS = ['by-hand', 'picks-up', 'lets-it-ring', 'busy', 'mailbox', 'no-such-number'] as const
export type Manner = typeof MANNERS[number]

/** How often telephones that nobody has set are of each kind, in a hundred. */
const SHARES: [Manner, number][] = [['picks-up', 55], ['mailbox', 25], ['lets-it-ring', 12], ['busy', 8]]

/** The same for a number each time, so that a demo can be shown twice. */
export function mannerOf(number: string): Manner {
  let hash = 0x811C9DC5
  for (const char of number) hash = Math.imul(hash ^ char.charCodeAt(0), 0x01000193) >>> 0
  let left = hash % 100
  for (const [manner, share] of SHARES) {
    if (left < share) return manner
    left -= share
  }
  return 'picks-up'
}
