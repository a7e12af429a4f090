import { defineStore } from 'pinia'

/** "What you changed is not saved": asked wherever somebody is about to leave it. */
export const useLeaving = defineStore('leaving', () => {
  const answer = shallowRef<((leaves: boolean) => void) | null>(null)

  /** @returns whether to leave it */
  function ask(): Promise<boolean> {
    answer.value?.(false)
    return new Promise(resolve => answer.value = resolve)
  }

  function say(leaves: boolean): void {
    answer.value?.(leaves)
    answer.value = null
  }

  return { asked: computed(() => answer.value !== null), ask, say }
})
