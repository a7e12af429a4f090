import type { RecordRow } from '~~/shared/record'
import type { List } from './list'

/** What is chosen in a list: single rows, over several pages, or everything that the list holds. */
export function useSelection({ list, total, question }: List) {
  const ids = shallowRef<ReadonlySet<string>>(new Set())
  const everything = ref(false)

  const rows = computed(() => list.value?.rows ?? [])
  const has = (id: string) => everything.value || ids.value.has(id)
  const count = computed(() => everything.value ? total.value ?? 0 : ids.value.size)
  const wholePage = computed(() => rows.value.length > 0 && rows.value.every(row => has(row.id)))

  function toggle({ id }: Pick<RecordRow, 'id'>): void {
    const next = new Set(everything.value ? rows.value.map(row => row.id) : ids.value)
    if (!next.delete(id)) next.add(id)
    ids.value = next
    everything.value = false
  }

  function togglePage(): void {
    const next = new Set(everything.value ? [] : ids.value)
    for (const { id } of rows.value) {
      if (wholePage.value) next.delete(id)
      else next.add(id)
    }
    ids.value = next
    everything.value = false
  }

  /** All that the list holds, on the pages that are not on screen too. */
  function chooseEverything(): void {
    everything.value = true
  }

  function clear(): void {
    ids.value = new Set()
    everything.value = false
  }

  // what is chosen is chosen of one list: another question means other people
  watch(question, clear)

  /** As the server takes it. */
  const selection = computed(() => ({ list: question.value, ids: everything.value ? null : [...ids.value], importId: null }))
  return { has, count, wholePage, everything, toggle, togglePage, chooseEverything, clear, selection }
}

export type ListSelection = ReturnType<typeof useSelection>
