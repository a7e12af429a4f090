import { watchDebounced } from '@vueuse/core'
import { NO_CONDITIONS, type Conditions } from '~~/core/conditions/conditions'
import type { ListColumn, View } from '~~/shared/list'
import type { Module } from '~~/shared/modules'
import type { RecordPage } from '~~/shared/record'
import { api } from './api'
import { plainList, type ListState } from './list-address'
import { newestOnly } from './newest'
import { problemIn } from './trying'

/**
 * A list on screen: what it asks for, and the page that came.
 *
 * @param begun as which list it begins
 */
export function useList(module: Module, begun: ListState = plainList(module)) {
  const words = ref(begun.words)
  const typed = ref(begun.words)
  watchDebounced(words, now => typed.value = now, { debounce: 150 })
  const conditions = shallowRef<Conditions>(begun.conditions)
  const shown = shallowRef<string[]>(begun.columns)
  const sort = ref(begun.sort)
  const direction = ref(begun.direction)
  const page = ref(begun.page)
  const list = shallowRef<RecordPage | null>(null)
  /** How many there are in all; null until they are counted, which takes longer than a page. */
  const total = ref<number | null>(null)
  const columns = shallowRef<ListColumn[]>([])
  const problem = ref('')
  const begin = newestOnly()
  const beginToCount = newestOnly()
  let toCount = true

  /** The list as the server is asked for it, without the page. */
  const asksFor = computed(() => ({
    module,
    words: typed.value,
    where: conditions.value.of.length > 0 ? JSON.stringify(conditions.value) : '',
  }))
  const question = computed(() => ({ ...asksFor.value, sort: sort.value, direction: direction.value }))

  const withGroups = computed(() => shown.value.includes('groups'))

  async function load(): Promise<void> {
    const isNewest = begin()
    try {
      const answer = await api<RecordPage>('/api/records', { query: { ...question.value, groups: withGroups.value, page: page.value } })
      // an answer that was overtaken by a newer question is thrown away
      if (!isNewest()) return
      list.value = answer
      if (columns.value.length > 0) problem.value = ''
      // only now: counting takes longer, and the page would wait for it
      if (toCount) void count()
    }
    catch (error) {
      const { message } = problemIn(error)
      if (isNewest()) problem.value = message
    }
  }

  async function count(): Promise<void> {
    toCount = false
    const isNewest = beginToCount()
    try {
      const answer = await api<{ total: number }>('/api/records/count', { query: asksFor.value })
      if (isNewest()) total.value = answer.total
    }
    catch (error) {
      const { message } = problemIn(error)
      if (!isNewest()) return
      problem.value = message
      toCount = true
    }
  }

  async function loadColumns(): Promise<void> {
    try {
      columns.value = await api<ListColumn[]>('/api/columns', { query: { module } })
    }
    catch (error) {
      problem.value = problemIn(error).message
    }
  }
  void loadColumns()

  async function loadAgain(): Promise<void> {
    problem.value = ''
    toCount = true
    await Promise.all([loadColumns(), load()])
  }

  watch(question, () => page.value = 1)
  watch(asksFor, () => {
    // whatever is being counted is another list
    beginToCount()
    toCount = true
    total.value = null
  })
  watch([question, page, withGroups], load, { immediate: true })

  function sortBy(key: string): void {
    if (sort.value === key) direction.value = direction.value === 'up' ? 'down' : 'up'
    else {
      sort.value = key
      direction.value = key === 'last-contact' || key === 'made' ? 'down' : 'up'
    }
  }

  /** Everybody again: asked for at once, and once. */
  function showAll(): void {
    words.value = ''
    typed.value = ''
    conditions.value = NO_CONDITIONS
  }

  function show(view: Pick<View, 'columns' | 'conditions' | 'sort' | 'direction'>): void {
    shown.value = view.columns
    conditions.value = view.conditions
    sort.value = view.sort
    direction.value = view.direction
  }

  /** Which list it is, whole. */
  const state = computed<ListState>(() => ({
    words: typed.value,
    conditions: conditions.value,
    columns: shown.value,
    sort: sort.value,
    direction: direction.value,
    page: page.value,
  }))
  async function become(other: ListState): Promise<void> {
    words.value = typed.value = other.words
    show(other)
    // another question begins at its first page
    await nextTick()
    page.value = other.page
  }

  const shownColumns = computed(() => shown.value.flatMap(key => columns.value.find(column => column.key === key) ?? []))
  const pages = computed(() => list.value ? Math.max(page.value, Math.ceil((total.value ?? 0) / list.value.size), 1) : 1)
  return {
    words,
    typed,
    conditions,
    shown,
    shownColumns,
    columns,
    sort,
    direction,
    page,
    pages,
    list,
    total,
    problem,
    question,
    state,
    become,
    loadAgain,
    sortBy,
    show,
    showAll,
  }
}

export type List = ReturnType<typeof useList>
