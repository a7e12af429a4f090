import { nearestFirst } from '../phone/nearest'

export interface ProposableLine {
  id: string
  e164: string
  /** Mine alone, not a team's. */
  mine: boolean
  /** What goes over it is hidden from others. */
  private: boolean
}

/** Why a line is proposed, in the order in which it is asked. */
export const PROPOSED_FOR = ['used-last', 'own-area', 'team-area', 'team', 'own'] as const
export type ProposedFor = typeof PROPOSED_FOR[number]

/** Only North America's numbers tell their area: its three digits behind +1 (ITU-T E.164, North American Numbering Plan). */
const sameArea = (a: string, b: string | null) => b !== null && a.startsWith('+1') && a.slice(0, 5) === b.slice(0, 5)

function reasonOf(line: ProposableLine, e164: string | null, lastId: string | undefined): ProposedFor {
  if (line.id === lastId) return 'used-last'
  if (!line.mine) return sameArea(line.e164, e164) ? 'team-area' : 'team'
  // nobody is led into talking where colleagues cannot follow
  return !line.private && sameArea(line.e164, e164) ? 'own-area' : 'own'
}

/**
 * The line that is proposed for a number: the one used last with it, my own from its area, one of my team from its area, the nearest
 * of my team, my own.
 *
 * @param lines those that may be used for it
 * @param e164 null: no number is chosen yet
 */
export function proposeLine<T extends ProposableLine>(
  lines: T[],
  e164: string | null,
  lastId?: string,
): { line: T, why: ProposedFor } | null {
  const nearest = nearestFirst(lines.map(line => ({ line, e164: line.e164, shared: !line.mine })), e164)
    .map(({ line }) => ({ line, why: reasonOf(line, e164, lastId) }))
  return PROPOSED_FOR.map(why => nearest.find(one => one.why === why)).find(Boolean) ?? null
}
