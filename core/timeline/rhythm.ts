/** Contact counted for one day; `day` is days since 1970 in the reader's zone. */
export interface RhythmDay { day: number, ours: number, theirs: number, calls: number }

export interface RhythmColumn { from: number, to: number, ours: number, theirs: number, calls: number }

/**
 * Gathers days of contact into columns of equal width, so that a year fits the strip.
 *
 * @param days in any order; those outside of the span are left out
 * @param first,last the span, days since 1970, both inclusive
 * @param columns how many columns the strip has room for
 */
export function rhythmColumns(days: RhythmDay[], first: number, last: number, columns: number): RhythmColumn[] {
  const span = Math.max(1, Math.ceil((last - first + 1) / columns))
  const count = Math.ceil((last - first + 1) / span)
  const gathered: RhythmColumn[] = Array.from({ length: count }, (_, index) => ({
    from: first + index * span,
    to: Math.min(last, first + (index + 1) * span - 1),
    ours: 0,
    theirs: 0,
    calls: 0,
  }))
  for (const { day, ours, theirs, calls } of days) {
    const column = gathered[Math.floor((day - first) / span)]
    if (day < first || day > last || !column) continue
    column.ours += ours
    column.theirs += theirs
    column.calls += calls
  }
  return gathered
}
