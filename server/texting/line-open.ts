import { isLineOpen } from '~~/core/hours/line-hours'
import { zoneRules } from '~~/core/hours/zones'
import { zonesOf } from '../records/phones'
import type { Line } from './lines'

/** Whether a line is answered at an instant, by the clock where its number is; never while it is silent. */
export function isOpenAt({ active, hours, country, e164 }: Pick<Line, 'active' | 'hours' | 'country' | 'e164'>, instant: Date | number): boolean {
  const zone = zoneRules(zonesOf({ zone: null, country, region: null }, e164)[0] ?? 'Etc/UTC')!
  return active && isLineOpen(hours, zone, Number(instant))
}
