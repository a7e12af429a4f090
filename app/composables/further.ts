import { api } from '~/composables/api'
import { newestOnly } from './newest'
import { useTrying } from './trying'

interface Page<T> { entries: T[], next: string | null }

/**
 * A long list that is read from the newest on, page after page, and from the beginning again whenever what is asked for changes.
 *
 * @param path where it is read
 * @param query what is asked for; empty values are left out
 * @example
 * const { entries, next, problem, busy, load, further } = useFurther<LedgerEntry>('/api/set-up/money/ledger', () => ({ kind: kind.value }))
 */
export function useFurther<T>(path: string, query: () => Record<string, string>) {
  const entries = shallowRef<T[] | null>(null)
  const next = ref<string | null>(null)
  const { problem, busy, trying } = useTrying()
  const begin = newestOnly()
  const asked = () => Object.fromEntries(Object.entries(query()).filter(([, value]) => value !== ''))

  const read = (after: string | null) => trying(async () => {
    const isNewest = begin()
    const found = await api<Page<T>>(path, { query: { ...asked(), ...after && { after } } })
    if (!isNewest()) return
    entries.value = after ? [...entries.value ?? [], ...found.entries] : found.entries
    next.value = found.next
  })
  const load = () => read(null)
  const further = () => read(next.value)
  watch(() => JSON.stringify(asked()), () => {
    entries.value = null
    void load()
  }, { immediate: true })

  return { entries, next, problem, busy, load, further, asked }
}
