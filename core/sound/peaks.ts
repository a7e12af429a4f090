/**
 * The shape of a sound for drawing: how loud its loudest moment is in each of equal stretches of time.
 *
 * @param samples one channel, each from -1 to 1
 * @param bars how many stretches; a sound of fewer samples has as many as it has samples
 * @returns loudness from 0 to 1, to the hundredth
 */
export function peaksOf(samples: ArrayLike<number>, bars: number): number[] {
  const many = Math.min(bars, samples.length)
  return Array.from({ length: many }, (_, bar) => {
    const [from, to] = [Math.floor(bar * samples.length / many), Math.floor((bar + 1) * samples.length / many)]
    let loudest = 0
    for (let i = from; i < to; i++) loudest = Math.max(loudest, Math.abs(samples[i]!))
    return Math.round(Math.min(1, loudest) * 100) / 100
  })
}
