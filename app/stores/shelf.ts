import { defineStore } from 'pinia'
import type { ShelfItem } from '~~/shared/shelf'
import { api } from '~/composables/api'
import { oneAtATime } from '~/composables/one-at-a-time'

/** The conversations that wait for an answer, and the one that is opened over the page. */
export const useShelf = defineStore('shelf', () => {
  const items = shallowRef<ShelfItem[]>([])
  const total = ref(0)
  const failed = ref(false)
  const openId = ref<string | null>(null)
  /** Whose record is open is not on the shelf as well. */
  const recordOnPage = ref<string | null>(null)
  /** Nor are the conversations that the page has open. */
  const conversationsOnPage = shallowRef<string[]>([])

  const shown = computed(() => items.value.filter(({ record, conversationId }) =>
    !conversationsOnPage.value.includes(conversationId) && (!record || record.id !== recordOnPage.value)))

  // of two answers the later asked for counts
  const load = oneAtATime(async () => {
    try {
      const answer = await api<{ items: ShelfItem[], total: number }>('/api/shelf')
      items.value = answer.items
      total.value = answer.total
      failed.value = false
    }
    catch {
      failed.value = true
    }
  })

  return { items, total, failed, openId, recordOnPage, conversationsOnPage, shown, load }
})
