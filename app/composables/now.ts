import { createSharedComposable, useTimestamp } from '@vueuse/core'

/** The time, new every five seconds, for clocks and "3 min ago" all over the page. */
export const useNow = createSharedComposable(() => useTimestamp({ interval: 5_000 }))

/** The same, new every second, for what counts seconds. */
export const useSeconds = createSharedComposable(() => useTimestamp({ interval: 1_000 }))
