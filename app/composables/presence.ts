import { useIntervalFn } from '@vueuse/core'
import type { Looking } from '~~/shared/presence'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'

const AGAIN_MS = 20_000

/** Says that I am at this record, and who else is. */
export function usePresence(recordId: string, writing: Ref<boolean>) {
  const others = shallowRef<Looking[]>([])

  async function say(state: 'looking' | 'writing' | 'gone'): Promise<void> {
    // presence is a courtesy: when it fails, nothing else does
    others.value = await api<Looking[]>(`/api/records/${recordId}/presence`, { method: 'POST', body: { state } }).catch(() => [])
  }
  const sayNow = () => void say(writing.value ? 'writing' : 'looking')

  onMounted(sayNow)
  watch(writing, sayNow)
  useIntervalFn(sayNow, AGAIN_MS)
  useLive((notice) => {
    if (notice.kind === 'presence' && notice.recordId === recordId) sayNow()
  }, sayNow)
  onBeforeUnmount(() => void say('gone'))

  return others
}
