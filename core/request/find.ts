import { anyOf, holds, holdsAny, plainly, sentencesOf } from './plain'
import { REQUEST_WORDS, type RequestWords } from './words'

/** What somebody asks for in a text. */
export interface Request {
  kind: 'call' | 'send'
  /** The sentence that says so, as it was written. */
  said: string
  /** `2026-12-03`, by their calendar; null where they name none. */
  day: string | null
  /** `15:00`, by their clock; null where they name none. */
  time: string | null
}

const DAY_MS = 86_400_000
/** A bare hour up to this one is one of the afternoon: nobody asks to be rung at three at night (common practice). */
const LAST_AFTERNOON_HOUR = 7

/**
 * A wish to be rung or to be sent something, with its day and time, as the words of `REQUEST_WORDS` tell. What sounds like the
 * opposite ("don't call me") is none.
 *
 * @param wall what the clock shows where they are, `2026-12-03T14:05`
 */
export function findRequest(text: string, wall: string): Request | null {
  for (const words of Object.values(REQUEST_WORDS)) {
    for (const said of sentencesOf(text)) {
      const plain = plainly(said)
      const kind = holdsAny(plain, words.call) ? 'call' : holdsAny(plain, words.send) ? 'send' : null
      if (!kind || holdsAny(plain, words.not)) continue
      const whole = plainly(text)
      return { kind, said: said.trim(), ...momentOf(momentIn(plain, words) ?? momentIn(whole, words), wall) }
    }
  }
  return null
}

/** By so many days from today, or on the next of a weekday; and at what time. */
interface Said { days: number | null, weekday: number | null, time: string | null }

function momentIn(text: string, words: RequestWords): Said | null {
  // “por la mañana” is a part of a day, and “mañana” a day: the part is taken out before the days are looked for
  const part = words.parts.find(([one]) => holds(text, one))
  const days = words.days.find(([one]) => holds(part ? text.replace(part[0], ' ') : text, one) || (part?.[0].startsWith(one) && holds(text, part[0])))
  const weekday = words.weekdays.findIndex(one => holds(text, one))
  const time = hourIn(text, words, part?.[1]) ?? part?.[1] ?? null
  return days || weekday >= 0 || time ? { days: days?.[1] ?? null, weekday: weekday >= 0 ? weekday : null, time } : null
}

/** `15:00`, "3pm", "15h30", "um 15 Uhr", "at 3": an hour with minutes, with what stands after one, or with what stands before one. */
function hourIn(text: string, { at, oClock }: RequestWords, part: string | undefined): string | null {
  const half = String.raw`\s?([ap])\.?m\b`
  const found
    = new RegExp(String.raw`(?<![\d.,:])(\d{1,2})[:h](\d{2})(?!\d)(?:${half})?`).exec(text)
      ?? new RegExp(String.raw`(?<![\d.,:])(\d{1,2})()(?:${half})`).exec(text)
      ?? new RegExp(String.raw`(?<![\d.,:])(\d{1,2})()\s?(?:${anyOf(oClock)})(?![\p{L}\d])`, 'u').exec(text)
      ?? new RegExp(String.raw`(?<![\p{L}])(?:${anyOf(at)}) (\d{1,2})()(?!\d|[.,:]\d|\s?[%€$£])`, 'u').exec(text)
  if (!found) return null
  const [hour, minute] = [Number(found[1]), Number(found[2] || 0)]
  if (hour > 23 || minute > 59) return null
  const isAfternoon = found[3] ? found[3] === 'p' : part !== undefined ? part >= '12:00' : hour <= LAST_AFTERNOON_HOUR
  const meant = hour >= 1 && hour < 12 && isAfternoon ? hour + 12 : found[3] === 'a' && hour === 12 ? 0 : hour
  return `${String(meant).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** By their calendar: a time alone is today's, if it is still to come, else tomorrow's. */
function momentOf(said: Said | null, wall: string): { day: string | null, time: string | null } {
  if (!said) return { day: null, time: null }
  const [today, now] = [wall.slice(0, 10), wall.slice(11, 16)]
  const noon = Date.parse(`${today}T12:00:00Z`)
  const weekdayNow = new Date(noon).getUTCDay()
  const ahead = said.weekday === null ? null : (said.weekday - weekdayNow + 6) % 7 + 1
  const days = said.days ?? ahead ?? (said.time !== null && said.time <= now ? 1 : 0)
  return { day: new Date(noon + days * DAY_MS).toISOString().slice(0, 10), time: said.time }
}
