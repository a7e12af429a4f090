/** Texts that leave one after the other: the first at `from`, each of the others `everyMs` after the one before. Epoch milliseconds. */
export interface PlanRun {
  groupId: string
  lineId: string
  from: number
  everyMs: number
  people: number
}

type Spaced = Pick<PlanRun, 'from' | 'everyMs' | 'people'>

/** How many of a run leave from one instant on and before another. */
export function countBetween({ from, everyMs, people }: Spaced, start: number, end: number): number {
  const before = (instant: number) => Math.min(people, Math.max(0, Math.ceil((instant - from) / everyMs)))
  return Math.max(0, before(end) - before(start))
}

/** When the last of a run leaves. */
export const lastOf = ({ from, everyMs, people }: Spaced): number => from + (people - 1) * everyMs

/** How many of each group have their turn up to an instant, that one included. */
export function dueBy(runs: readonly PlanRun[], instant: number): Map<string, number> {
  const due = new Map<string, number>()
  for (const run of runs) {
    const count = countBetween(run, -Infinity, instant + 1)
    if (count > 0) due.set(run.groupId, (due.get(run.groupId) ?? 0) + count)
  }
  return due
}

/** The first moment after an instant at which a text leaves; null if none does. */
export function nextAfter(runs: readonly PlanRun[], instant: number): number | null {
  let next: number | null = null
  for (const { from, everyMs, people } of runs) {
    const turn = Math.max(0, Math.floor((instant - from) / everyMs) + 1)
    if (turn >= people) continue
    const at = from + turn * everyMs
    if (next === null || at < next) next = at
  }
  return next
}
