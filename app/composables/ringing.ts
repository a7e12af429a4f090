import { useIntervalFn } from '@vueuse/core'
import { chime, ring } from './chime'

const RING_EVERY_MS = 3_000

/**
 * A call that comes in is heard for as long as it rings, and nothing moves. Whoever talks already hears it once, softly, as
 * any other notice.
 */
export function useRinging(ringing: () => number, talking: () => boolean): void {
  const again = useIntervalFn(() => !talking() && ring(), RING_EVERY_MS, { immediate: false })
  watch(ringing, (now, before) => {
    if (now === 0) return again.pause()
    if (now <= before) return
    if (talking()) chime()
    else ring()
    again.resume()
  })
}
