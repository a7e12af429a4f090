import type { ClockFormat } from '../hours/format'
import { MONTHS, WEEKDAYS } from '../hours/say'
import { wallTime, type WallTime } from '../hours/wall'
import { zoneRules } from '../hours/zones'
import { DATE_FORMATS, isDateFormat, pad } from './date-formats'

/** Whose clock a text goes by: that of the person who reads it. */
export interface PersonsClock {
  /** IANA zone in which instants are written. */
  zone: string
  format: ClockFormat
}

/** The conversions of strftime that a text needs; the padded ones have an unpadded form with a dash. */
const CONVERSIONS: Record<string, (t: WallTime) => string> = {
  'A': t => WEEKDAYS[t.weekday]!,
  'a': t => WEEKDAYS[t.weekday]!.slice(0, 3),
  'B': t => MONTHS[t.month - 1]!,
  'b': t => MONTHS[t.month - 1]!.slice(0, 3),
  'd': t => pad(t.day),
  '-d': t => String(t.day),
  'e': t => String(t.day),
  'm': t => pad(t.month),
  '-m': t => String(t.month),
  'Y': t => String(t.year),
  'H': t => pad(t.hour),
  '-H': t => String(t.hour),
  'I': t => pad(twelve(t.hour)),
  '-I': t => String(twelve(t.hour)),
  'M': t => pad(t.minute),
  'p': t => (t.hour < 12 ? 'am' : 'pm'),
  '%': () => '%',
}

/**
 * A date or an instant in words.
 *
 * @param value "2026-12-03" (a day anywhere), or an instant as ISO 8601 with an offset, a Date or epoch milliseconds
 * @param format a name of DATE_FORMATS or strftime conversions
 * @throws RangeError for a value that is no date, a conversion that is not known, an unknown zone
 */
export function formatDate(value: unknown, format: string, clock: PersonsClock): string {
  const wall = readWall(value, clock.zone)
  if (isDateFormat(format)) return DATE_FORMATS[format](wall, clock.format)
  return format.replace(/%(-?.)?/g, (whole, conversion: string | undefined) => {
    const write = CONVERSIONS[conversion ?? '']
    if (!write)
      throw new RangeError(
        `“${whole}” is not a date format. Known are ${Object.keys(DATE_FORMATS).join(', ')} and ${Object.keys(CONVERSIONS)
          .map(c => `%${c}`)
          .join(' ')}.`,
      )
    return write(wall)
  })
}

function readWall(value: unknown, zone: string): WallTime {
  const day = typeof value === 'string' && /^(\d{4})-(\d{2})-(\d{2})$/.exec(value)
  if (day) {
    const date = new Date(Date.UTC(+day[1]!, +day[2]! - 1, +day[3]!))
    if (date.getUTCDate() !== +day[3]!) throw new RangeError(`“${value}” is not a day of the calendar.`)
    return { year: +day[1]!, month: +day[2]!, day: +day[3]!, hour: 0, minute: 0, weekday: date.getUTCDay() }
  }
  const instant = value instanceof Date ? value.getTime() : typeof value === 'number' ? value : Date.parse(String(value))
  const rules = zoneRules(zone)
  if (!Number.isFinite(instant)) throw new RangeError(`“${String(value)}” is not a date.`)
  if (!rules) throw new RangeError(`“${zone}” is not a time zone.`)
  return wallTime(rules, instant)
}

const twelve = (hour: number) => hour % 12 || 12
