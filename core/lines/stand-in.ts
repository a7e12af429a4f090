/** So many minutes a carrier is away before a text leaves over another line. */
export const AWAY_MINUTES = 5

/** What of a line decides whether another one can stand in for it. */
export interface StandingIn { id: string, name: string, country: string, private: boolean, carrier: string }

/**
 * Why a line cannot stand in for another one: it has to text the same people over another carrier, and what is private stays.
 *
 * @returns null where it can
 */
export function whyNotStandIn(line: StandingIn, other: StandingIn | undefined): string | null {
  if (!other || other.id === line.id) return 'Choose another line.'
  if (other.country !== line.country) return `${other.name} texts within another country only.`
  if (line.private || other.private) return 'What goes over a private line shows to nobody else. Choose one that is not private.'
  if (other.carrier === line.carrier) return `${other.name} is on the same carrier, and away with it. Choose one on another carrier.`
  return null
}

/** What goes to many keeps the pace of its line, and pictures are not taken by every carrier: these wait. */
export const mayLeaveElsewhere = ({ origin, pictures }: { origin: string | null, pictures: number }): boolean =>
  pictures === 0 && origin !== 'bulk' && origin !== 'bulk-answer'

/**
 * Whether it has been tried for long enough.
 *
 * @param tryingSince since when the carrier was asked for this text in vain (epoch milliseconds)
 * @param awaySince since when it is known to be away; null where it does not say
 */
export const isAwayLong = (tryingSince: number | null, awaySince: number | null, now: number): boolean =>
  now - Math.min(tryingSince ?? Infinity, awaySince ?? Infinity) >= AWAY_MINUTES * 60_000
