import { defineStore } from 'pinia'
import type { Knock, Knocks } from '~~/shared/knocks'
import { api } from '~/composables/api'
import { oneAtATime } from '~/composables/one-at-a-time'
import { useTrying } from '~/composables/trying'
import { KNOCK_WORDS, knocker } from '~/words/knocks'
import { useCalls } from './calls'
import { useShelf } from './shelf'

/** What calls for action at once, as it is with me, and what did within the last day. */
export const useKnocks = defineStore('knocks', () => {
  const all = shallowRef<Knock[]>([])
  const loaded = ref(false)
  const isOpen = ref(false)
  const { problem, busy, trying } = useTrying()
  const open = computed(() => all.value.filter(({ state }) => state === 'open'))
  const newest = computed(() => open.value[0] ?? null)

  const load = oneAtATime(async () => {
    // what could not be loaded comes with the next notice, or when the connection is there again
    const answer = await api<Knocks>('/api/knocks').catch(() => null)
    if (!answer) return
    all.value = answer.knocks
    loaded.value = true
  })

  let taking = false
  /** Takes it, so that nobody else does, and goes to the person: nothing on the page has moved until then. */
  async function take(knock: Knock): Promise<void> {
    // a key that is pressed twice would call twice
    if (taking) return
    taking = true
    const went = await trying(() => api(`/api/knocks/${knock.id}/take`, { method: 'POST' }))
    await load()
    taking = false
    if (!went) return
    isOpen.value = false
    const calls = useCalls()
    // whoever is on a call cannot make another: what it is about lies ready for after it
    if (KNOCK_WORDS[knock.kind].act === 'call' && !calls.on)
      await calls.dial({ ...knock.phoneId ? { phoneId: knock.phoneId } : { number: knock.remote ?? '' }, name: knocker(knock) })
    else if (knock.conversationId) await answer(knock.conversationId)
    else await navigateTo(`/record/${knock.record!.id}`)
  }

  /** Over the page, or on it where it lies open there already. */
  async function answer(conversationId: string): Promise<void> {
    const shelf = useShelf()
    if (!shelf.conversationsOnPage.includes(conversationId)) shelf.openId = conversationId
    else await navigateTo({ path: '/inbox', query: { with: conversationId, answer: '1' } })
  }

  /** All of them are seen, on my other devices too. */
  async function see(): Promise<void> {
    // what could not be marked is marked the next time it is looked at
    const answer = await api<Knocks>('/api/knocks/seen', { method: 'POST' }).catch(() => null)
    if (answer) all.value = answer.knocks
  }

  return { all, open, newest, loaded, isOpen, problem, busy, load, take, see }
})
