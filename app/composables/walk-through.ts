import { useSessionStorage } from '@vueuse/core'
import type { RecordPage } from '~~/shared/record'
import { api } from '~/composables/api'
import { useMe } from '~/stores/me'

/** A list as somebody left it to open one of its records: what it asks for, and which of its records are on the page at hand. */
interface Walked { address: string, question: Record<string, string>, page: number, size: number, ids: string[], total: number | null }

const stored = () => useSessionStorage<Walked | null>(`plauder-walked-${useMe().me?.id ?? 'nobody'}`, null, {
  serializer: { read: (kept: string) => JSON.parse(kept) as Walked | null, write: JSON.stringify },
})

/** Remembers a list, so that its records can be gone through one after the other. */
export function rememberList(list: Walked): void {
  stored().value = list
}

/** Where a record stands in the list from which somebody came, and the way to the ones next to it. */
export function useWalkThrough(recordId: string) {
  const list = stored()
  const place = computed(() => list.value?.ids.indexOf(recordId) ?? -1)
  const number = computed(() => list.value && place.value >= 0 ? (list.value.page - 1) * list.value.size + place.value + 1 : null)
  const isLast = computed(() => {
    const { ids, size, total } = list.value ?? { ids: [], size: 0, total: null }
    return place.value === ids.length - 1 && (ids.length < size || number.value === total)
  })

  async function go(by: 1 | -1): Promise<void> {
    if (!list.value || place.value < 0) return
    const next = list.value.ids[place.value + by] ?? await overTheEdge(list.value, by)
    if (next) await navigateTo(`/record/${next}`)
  }

  async function overTheEdge(walked: Walked, by: 1 | -1): Promise<string | undefined> {
    const page = walked.page + by
    if (page < 1) return undefined
    const { rows } = await api<RecordPage>('/api/records', { query: { ...walked.question, page } })
    if (rows.length === 0) return undefined
    list.value = { ...walked, page, ids: rows.map(({ id }) => id) }
    return list.value.ids.at(by === 1 ? 0 : -1)
  }

  return { list, number, isLast, go }
}
