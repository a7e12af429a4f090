import { log } from '../log/log'

/**
 * Does work every so often, one piece at a time; what fails is tried again when its time comes.
 *
 * @param tasks `every` in milliseconds
 * @returns how to stop: resolves once what is under way has ended
 */
export function regularly(tasks: { every: number, work: () => Promise<unknown> }[]): () => Promise<void> {
  let stopped = false
  let underWay = Promise.resolve()
  const doNext = (work: () => Promise<unknown>) => underWay = underWay.then(async () => {
    if (!stopped) await work()
  }).catch((error: unknown) => log.error({ err: error }, 'regular work failed; it is tried again when its time comes'))
  const timers = tasks.map(({ every, work }) => setInterval(doNext, every, work).unref())
  return () => {
    stopped = true
    for (const timer of timers) clearInterval(timer)
    return underWay
  }
}
