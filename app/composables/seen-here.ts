import { useDocumentVisibility } from '@vueuse/core'
import { api } from './api'

/**
 * What came in is seen on a record's page as it is in the inbox, as long as the page is in sight.
 *
 * @param newest the newest entry that came in, of those on screen
 */
export function useSeenHere(recordId: string, newest: () => string | null): void {
  const visibility = useDocumentVisibility()
  let said: string | null = null
  watch([newest, visibility], () => {
    const last = newest()
    if (!last || last === said || visibility.value !== 'visible') return
    said = last
    // that it was seen is a courtesy: when it cannot be kept, it is the next time
    void api(`/api/records/${recordId}/seen`, { method: 'POST', body: {} }).catch(() => said = null)
  }, { immediate: true })
}
