import { useIntervalFn, useTimeoutFn } from '@vueuse/core'
import type { Looking, MeetingPlace } from '~~/shared/presence'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'

const AGAIN_MS = 20_000
/** Whoever only passes by is not announced, and the page itself comes first. */
const FIRST_MS = 400

/** Says that I am at this place, and who else is: in words for whoever is there too. */
export function usePresence({ of, id }: MeetingPlace, writing: Ref<boolean>) {
  const others = shallowRef<Looking[]>([])

  async function say(state: 'looking' | 'writing' | 'gone'): Promise<void> {
    said = state !== 'gone'
    // presence is a courtesy: when it fails, nothing else does
    others.value = await api<Looking[]>(`/api/${of}s/${id}/presence`, { method: 'POST', body: { state } }).catch(() => [])
  }
  const sayNow = () => void say(writing.value ? 'writing' : 'looking')

  let said = false
  useTimeoutFn(sayNow, FIRST_MS)
  watch(writing, sayNow)
  useIntervalFn(sayNow, AGAIN_MS)
  useLive((notice) => {
    if (notice.kind === 'presence' && notice.place.of === of && notice.place.id === id) sayNow()
  }, sayNow)
  // the page to which one goes comes first
  onBeforeUnmount(() => said && setTimeout(() => void say('gone'), FIRST_MS))

  return computed(() => others.value.map(({ firstName, writing }) => `${firstName} is ${writing ? 'writing' : 'here'}.`).join(' '))
}
