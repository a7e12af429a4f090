import { sayTime, type ClockFormat } from '../hours/format'
import { MONTHS, WEEKDAYS, sayDay } from '../hours/say'
import type { WallTime } from '../hours/wall'

const time = ({ hour, minute }: WallTime, format: ClockFormat) => sayTime(`${pad(hour)}:${pad(minute)}`, format)

function short({ weekday, day, month }: WallTime, format: ClockFormat): string {
  return sayDay({ weekday: WEEKDAYS[weekday]!.slice(0, 3), day, month: MONTHS[month - 1]!.slice(0, 3) }, format)
}

/** Named formats, each as the person who is texted writes dates; for people who do not speak strftime. */
export const DATE_FORMATS = {
  day: short,
  long: ({ weekday, day, month }, format) => sayDay({ weekday: WEEKDAYS[weekday]!, day, month: MONTHS[month - 1]! }, format),
  weekday: ({ weekday }) => WEEKDAYS[weekday]!,
  time,
  moment: (wall, format) => `${short(wall, format)}, ${time(wall, format)}`,
} satisfies Record<string, (wall: WallTime, format: ClockFormat) => string>

export type DateFormat = keyof typeof DATE_FORMATS

export const isDateFormat = (name: string): name is DateFormat => Object.hasOwn(DATE_FORMATS, name)

export const pad = (n: number) => String(n).padStart(2, '0')
