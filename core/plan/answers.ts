import { wilson } from '../numbers/wilson'
import { countBetween, lastOf, type PlanRun } from './run'

/** What similar texts brought. */
export interface Brought {
  texted: number
  answered: number
  /** How long answers took, milliseconds, by tenths: a tenth came within the first, all within the tenth. None where nobody answered. */
  delays: number[]
}

/** How many of those who get it answer, as far as that is known. */
export interface Expected { share: number, low: number, high: number }

/** So many answer where nothing similar has been sent yet, and few or twice as many are as likely (from memory, common practice). */
const UNKNOWN: Expected = { share: 0.15, low: 0.05, high: 0.4 }
/** And so long it takes: half of them answer within a quarter of an hour, hardly anybody after a day (from memory, common practice). */
const UNKNOWN_DELAYS = [2, 4, 6, 10, 15, 30, 60, 180, 480, 1440].map(minutes => minutes * 60_000)
/** From fewer texts nothing can be told. */
const FEWEST = 20

/** Whether so many similar texts have been sent that they tell something. */
export const tells = (brought: Brought | null): brought is Brought => brought !== null && brought.texted >= FEWEST

/** How many of a hundred answer, with the interval in which it may as well be (Wilson). */
export function expected(brought: Brought | null): Expected {
  const found = tells(brought) ? wilson(brought.answered, brought.texted) : null
  return found ? { share: found.share, low: found.low, high: found.high } : UNKNOWN
}

/** Which share of the answers has come within so long. */
function within(delays: readonly number[], milliseconds: number): number {
  if (milliseconds <= 0) return 0
  const next = delays.findIndex(delay => delay > milliseconds)
  if (next < 0) return 1
  const [from, to] = [next === 0 ? 0 : delays[next - 1]!, delays[next]!]
  return (next + (milliseconds - from) / (to - from)) / delays.length
}

const HOUR_MS = 3_600_000
/** What leaves within so long counts as leaving in the middle of it. */
const SLOT_MS = 300_000

/**
 * How many answers come in each hour from the first text on.
 *
 * @param runs when each text leaves
 * @returns hour by hour, until the last answer; nothing where nothing leaves
 */
export function answersByHour(runs: readonly PlanRun[], brought: Brought | null): { from: number, answers: number }[] {
  if (runs.length === 0) return []
  const delays = tells(brought) && brought.delays.length > 0 ? brought.delays : UNKNOWN_DELAYS
  const { share } = expected(brought)
  const start = Math.min(...runs.map(({ from }) => from))
  const end = Math.max(...runs.map(lastOf)) + delays.at(-1)!
  const hours = Array.from({ length: Math.floor((end - start) / HOUR_MS) + 1 }, (_, i) => ({ from: start + i * HOUR_MS, answers: 0 }))
  for (const run of runs) {
    const last = lastOf(run)
    for (let slot = run.from; slot <= last; slot += SLOT_MS) {
      const texts = countBetween(run, slot, slot + SLOT_MS)
      if (texts === 0) continue
      const left = slot + Math.min(SLOT_MS, last + 1 - slot) / 2
      for (let i = Math.floor((left - start) / HOUR_MS); i < hours.length; i++) {
        const { from } = hours[i]!
        const came = within(delays, from + HOUR_MS - left) - within(delays, from - left)
        if (came === 0 && from > left) break
        hours[i]!.answers += texts * share * came
      }
    }
  }
  return hours
}

export interface Busiest { from: number, low: number, likely: number, high: number }

/** The hour in which most answers come, and between how many and how many that may be; null where nothing leaves. */
export function busiestHour(runs: readonly PlanRun[], brought: Brought | null): Busiest | null {
  const [most] = answersByHour(runs, brought).sort((a, b) => b.answers - a.answers)
  if (!most) return null
  const { share, low, high } = expected(brought)
  const texts = share === 0 ? 0 : most.answers / share
  return { from: most.from, likely: Math.round(most.answers), low: Math.round(texts * low), high: Math.round(texts * high) }
}

/**
 * How far apart the texts of each line leave so that no more answers come than can be worked off.
 *
 * @param anHour how many answers an hour can be
 * @param lines over how many lines it goes at once
 * @returns milliseconds
 */
export const pacedTo = (anHour: number, lines: number, brought: Brought | null): number =>
  Math.ceil(HOUR_MS * Math.max(expected(brought).share, 1 / HOUR_MS) * lines / anHour)

/**
 * Whether it waits: an hour's work has piled up, and as long as more than half of that is left (common practice). Between the two it
 * stays as it is, so that it does not stop and go with each answer.
 */
export const waitsForAnswers = (waits: boolean, waiting: number, anHour: number): boolean =>
  waits ? waiting > anHour / 2 : waiting >= anHour
