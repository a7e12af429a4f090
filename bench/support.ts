import { performance } from 'node:perf_hooks'
import { resolve } from 'node:path'

export const PARTS = resolve('.output/parts')

/** Only to see that everything still runs: a little of everything, and no figure decides. */
const isSmall = process.env.BENCH_SMALL === '1'

/** How much of something is measured. */
export const size = (full: number, small: number): number => isSmall ? small : full

/** The value below which a share of the samples lies; NaN of none. */
export function percentile(samples: number[], share: number): number {
  const sorted = [...samples].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN
}

/** Milliseconds that each run of some work takes, after a few that warm up. */
export async function timeEach(runs: number, work: (run: number) => Promise<unknown>): Promise<number[]> {
  for (let run = 0; run < Math.min(50, runs); run++) await work(run)
  const samples: number[] = []
  for (let run = 0; run < runs; run++) {
    const begun = performance.now()
    await work(run)
    samples.push(performance.now() - begun)
  }
  return samples
}

let missed = 0

/** Prints one figure as `name ratio limit`; what misses its limit fails the bench. */
export function figure(name: string, ratio: number, limit: string, holds: boolean): void {
  if (!holds) missed++
  console.log(`${name} ${ratio.toFixed(ratio < 10 ? 3 : 1)} ${limit}${holds ? '' : '  MISSED'}`)
}

export const exitCode = () => missed > 0 && !isSmall ? 1 : 0
