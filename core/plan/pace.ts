/** What a line could have sent in so long may go at once: nobody looks at whose turn it is to the millisecond. */
export const LOOK_MS = 2_000

/**
 * How many texts may go over a line now. It is never over its rate for longer than two seconds: what it could not send while nobody
 * looked for longer is not made up for.
 *
 * @param last when its last text had its turn, epoch milliseconds; null if none had
 * @returns how many may go, and what then counts as the last turn
 */
export function mayGo(last: number | null, everyMs: number, wanted: number, now: number): { count: number, last: number | null } {
  if (wanted <= 0) return { count: 0, last }
  const most = Math.max(1, Math.floor(LOOK_MS / everyMs))
  // as if the one before the first of those that may be made up for had just had its turn
  const since = Math.max(last ?? -Infinity, now - most * everyMs)
  const count = Math.min(wanted, Math.floor((now - since) / everyMs))
  return { count, last: count > 0 ? since + count * everyMs : last }
}
