import { makePlan, type PlanAsked } from './plan'

/** Nobody chooses a start to the minute. */
const STEP_MS = 15 * 60_000

/**
 * The latest start, to a quarter of an hour, at which all of it is out before its event: everybody who can be reached at all gets it.
 *
 * @param earliest the first start that can still be chosen, epoch milliseconds
 * @returns null where not even that one is early enough, or nothing is waited for
 */
export function latestStart(asked: Omit<PlanAsked, 'start'>, earliest: number): number | null {
  const { event } = asked
  if (event === null) return null
  const isOut = (start: number) => makePlan({ ...asked, start }).left.every(({ why }) => why !== 'after-event')
  if (earliest >= event || !isOut(earliest)) return null
  // from quarter to quarter, so that it reads as people say it; the first one may lie between two
  const first = Math.ceil(earliest / STEP_MS)
  let [known, tooLate] = [first - 1, Math.ceil(event / STEP_MS)]
  while (tooLate - known > 1) {
    const middle = Math.floor((known + tooLate) / 2)
    if (isOut(middle * STEP_MS)) known = middle
    else tooLate = middle
  }
  return known < first ? earliest : known * STEP_MS
}
