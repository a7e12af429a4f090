import moment from 'moment-timezone'
import type { ZoneRules } from './rules'

const known = new Map<string, ZoneRules | null>()

/**
 * Rules of a zone of the IANA database. This is the one place that knows where they come from: the
 * package's data, which is newer than the runtime's own.
 *
 * @returns null if no zone has that name
 */
export function zoneRules(name: string): ZoneRules | null {
  const cached = known.get(name)
  if (cached !== undefined) return cached
  const zone = name ? moment.tz.zone(name) : null
  const rules = zone && {
    name,
    untils: zone.untils.map(until => Number.isFinite(until) ? until : null),
    offsets: zone.offsets.map(west => -west),
  }
  known.set(name, rules)
  return rules
}
