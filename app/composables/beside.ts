import { useSessionStorage } from '@vueuse/core'
import { useMe } from '~/stores/me'

/** Most conversations that lie side by side: those that are kept, and the one that was opened last. */
const MOST = 4

/**
 * Conversations that lie beside each other. Those that are kept stay until they are closed, over a reload too, each window
 * with its own; beside them lies the one that was opened last.
 *
 * @param openId the one that is worked with
 * @param open works with another one, or with none
 */
export function useBeside(openId: Readonly<Ref<string | null>>, open: (id: string | null) => void) {
  const me = useMe().me!.id
  const kept = useSessionStorage<string[]>(`plauder-beside-${me}`, [])
  /** The one that was opened last without being kept: it gives its place to the next such one. */
  const passing = useSessionStorage<string | null>(`plauder-beside-passing-${me}`, null)
  watch(openId, (id) => {
    if (id === null || !kept.value.includes(id)) passing.value = id
  }, { immediate: true, flush: 'sync' })
  const sheets = computed(() => [...new Set([...kept.value, ...passing.value ? [passing.value] : []])])
  const mayKeep = computed(() => kept.value.length < MOST - 1)

  function toggle(id: string): void {
    if (kept.value.includes(id)) {
      kept.value = kept.value.filter(one => one !== id)
      passing.value = id
    }
    else if (mayKeep.value) kept.value = [...kept.value, id]
  }

  /** The next one is worked with then: that to the right, else that to the left. */
  function close(id: string): void {
    const at = sheets.value.indexOf(id)
    const left = sheets.value.filter(one => one !== id)
    kept.value = kept.value.filter(one => one !== id)
    if (passing.value === id) passing.value = null
    if (id === openId.value) open(left[Math.min(at, left.length - 1)] ?? null)
  }

  /**
   * Round and round: there are few.
   *
   * @param from the one that has the cursor; which is worked with is said a moment later
   */
  function step(by: 1 | -1, from = openId.value): void {
    const all = sheets.value
    if (all.length > 1 && from) open(all[(all.indexOf(from) + by + all.length) % all.length]!)
  }

  return { kept, sheets, mayKeep, toggle, close, step }
}
