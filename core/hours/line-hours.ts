import type { ZoneRules } from './rules'
import { wallTime } from './wall'

/** When a line is answered, by the clock where it is at home; outside of that it takes messages. */
export interface LineHours {
  /** `08:00`. */
  opens: string
  /** `18:00`, later than it opens; `24:00` for the end of the day. */
  closes: string
  /** 0 (Sunday) to 6. */
  days: number[]
}

const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3))

/** Whether a line is answered at an instant (epoch milliseconds); always where it has no hours. */
export function isLineOpen(hours: LineHours | null, zone: ZoneRules, instant: number): boolean {
  if (!hours) return true
  const { weekday, hour, minute } = wallTime(zone, instant)
  const now = hour * 60 + minute
  return hours.days.includes(weekday) && now >= minutes(hours.opens) && now < minutes(hours.closes)
}
