/**
 * Work of which one run at a time is enough: whoever asks while it runs gets the run after it, all of them the same.
 * What it reads is so never older than the moment at which it was asked for.
 *
 * @example
 * const load = oneAtATime(async () => list.value = await api('/api/things'))
 */
export function oneAtATime(work: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null
  let next: Promise<void> | null = null

  function run(): Promise<void> {
    if (!running) return running = work().finally(() => running = null)
    return next ??= running.catch(() => undefined).then(() => {
      next = null
      return run()
    })
  }
  return run
}
