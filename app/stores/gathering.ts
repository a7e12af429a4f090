import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { AddedToBulk } from '~~/shared/bulk-texts'
import type { Whom } from '~~/shared/schemas/list'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from './me'

interface Gathered {
  bulkId: string
  name: string
  people: number
  /** It is another audience of this one's occasion, and is made when somebody is in it. */
  besideId?: string | null
}

/** For which bulk text I am gathering people, over as many lists and groups as I like; it outlives a reload. */
export const useGathering = defineStore('gathering', () => {
  const me = useMe()
  const myId = () => me.me!.id
  // on a machine that several use everybody gathers for themselves
  const all = useLocalStorage<Record<string, Gathered>>('plauder-gathering', {})
  const mine = computed(() => me.me ? all.value[myId()] ?? null : null)
  /** What came of adding last, until somebody is added again. */
  const added = shallowRef<AddedToBulk | null>(null)
  const { problem, busy, trying } = useTrying()

  function begin(gathered: Gathered): void {
    added.value = null
    problem.value = ''
    all.value = { ...all.value, [myId()]: gathered }
  }

  function end(): void {
    const { [myId()]: _mine, ...others } = all.value
    all.value = others
  }

  const add = (whom: Whom) => trying(async () => {
    const { bulkId, besideId, name } = mine.value!
    added.value = null
    // making it once more gives the first, to which they are added then
    if (besideId) await api('/api/bulk-texts', { method: 'POST', body: { id: bulkId, name, besideId, ...whom } })
    const came = await api<AddedToBulk>(`/api/bulk-texts/${bulkId}/people`, { method: 'POST', body: whom })
    added.value = besideId ? { ...came, added: came.people, again: 0 } : came
    if (mine.value?.bulkId === bulkId) all.value = { ...all.value, [myId()]: { ...mine.value, people: came.people, besideId: null } }
  })

  return { mine, added, problem, busy, begin, end, add }
})
