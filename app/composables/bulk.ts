import { useThrottleFn } from '@vueuse/core'
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import { api } from './api'
import { useLive } from './live'
import { useLoaded } from './loaded'

/** How often a bulk text under way is read again, however fast it goes: a large one takes longer to count. */
const OFTEN_MS = 800
const OF_EACH_MS = 0.05

/** One bulk text on screen, read again whenever something happens to it; `changes` grows with it. */
export function useBulk(id: string) {
  const changes = ref(0)
  const { found: bulk, problem, load, trying } = useLoaded<BulkTextDetail>(`/api/bulk-texts/${id}`)
  const loadSoon = useThrottleFn(async () => {
    await load()
    changes.value++
  }, () => Math.max(OFTEN_MS, OF_EACH_MS * (bulk.value?.people ?? 0)), true)
  useLive(notice => void (notice.kind === 'bulk-text' && notice.bulkId === id && loadSoon()), () => void loadSoon())

  /** Does something with it, and shows how it stands then. */
  const act = (path: string, body: object = {}) => trying(async () => {
    await api(`/api/bulk-texts/${id}/${path}`, { method: 'POST', body })
    await loadSoon()
  })
  return { bulk, problem, changes, load, act, trying }
}
