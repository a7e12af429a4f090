import { useIntervalFn } from '@vueuse/core'
import type { RingSound } from '~~/shared/calling'
import { chime, ring } from './chime'

const RING_EVERY_MS = 3_000

/**
 * Calls that come in are heard for as long as they ring, as the line of the first one sounds, and nothing moves. Whoever talks
 * already hears it once, softly, as any other notice.
 */
export function useRinging(ringing: () => RingSound[], talking: () => boolean): void {
  const sound = () => ring(ringing()[0])
  const again = useIntervalFn(() => !talking() && sound(), RING_EVERY_MS, { immediate: false })
  watch(() => ringing().length, (now, before) => {
    if (now === 0) return again.pause()
    if (now <= before) return
    if (talking()) chime()
    else sound()
    again.resume()
  })
}
