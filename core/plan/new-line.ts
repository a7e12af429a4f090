/** On its first day a new line sends so many texts to many, and each day twice as many as the day before (common practice, from memory). */
const FIRST_DAY = 200
/** After so many days carriers know it, and it sends as many as it is set up for. */
const NEW_DAYS = 7
const DAY_MS = 86_400_000

/**
 * The most that a line sends on a day while it is new: carriers take a number that begins with thousands for an unwelcome sender's.
 *
 * @param since when it was set up, epoch milliseconds; null for one that has been there all along
 * @param midnight when the day begins
 * @returns null once it is not new any more
 */
export function mostWhileNew(since: number | null, midnight: number): number | null {
  if (since === null) return null
  const days = Math.max(0, Math.ceil((midnight - since) / DAY_MS))
  return days >= NEW_DAYS ? null : FIRST_DAY * 2 ** days
}
