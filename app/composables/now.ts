import { useIntervalFn } from '@vueuse/core'

const now = ref(Date.now())
let ticking = false

/** The time, new every five seconds, for clocks and "3 min ago" all over the page. */
export function useNow() {
  if (!ticking) {
    ticking = true
    useIntervalFn(() => now.value = Date.now(), 5_000)
  }
  return now
}
