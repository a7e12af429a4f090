import { defineStore } from 'pinia'
import { useDebounceFn, useIntervalFn, useStorage } from '@vueuse/core'
import { api } from '~/composables/api'
import { oneAtATime } from '~/composables/one-at-a-time'
import { problemIn } from '~/composables/trying'
import { useMe } from './me'

const SOON_MS = 500
/** Who types without a pause is saved all the same. */
const AT_LATEST_MS = 2_000
const AGAIN_MS = 5_000

/**
 * What I note in calls, on its way to the server. Until it is there it lies in this browser, so that neither a reload nor
 * a server that is away takes any of it.
 */
export const useCallNotes = defineStore('call-notes', () => {
  const unsaved = useStorage<Record<string, string>>(`plauder-call-notes-${useMe().me?.id ?? 'nobody'}`, {})
  /** Why they could not be saved, by call. */
  const problems = ref<Record<string, string>>({})

  /** What of a call is not saved yet, if anything. */
  const of = (callId: string): string | undefined => unsaved.value[callId]

  function write(callId: string, words: string): void {
    unsaved.value = { ...unsaved.value, [callId]: words }
    void saveSoon()
  }

  // one after the other: what was written first must not come last
  const save = oneAtATime(async () => {
    for (const [callId, words] of Object.entries(unsaved.value)) {
      try {
        await api(`/api/calls/${callId}/notes`, { method: 'PUT', body: { notes: words } })
        problems.value = without(problems.value, callId)
        if (unsaved.value[callId] === words) unsaved.value = without(unsaved.value, callId)
      }
      catch (error) {
        const refused = problemIn(error)
        // a call that is none of mine takes no notes of mine: asking again and again would not help
        const isFinal = refused.details.status === 404
        problems.value = { ...problems.value, [callId]: isFinal ? refused.message : `${refused.message} What you note stays in this browser meanwhile.` }
        if (isFinal) unsaved.value = without(unsaved.value, callId)
      }
    }
  })
  const saveSoon = useDebounceFn(save, SOON_MS, { maxWait: AT_LATEST_MS })
  useIntervalFn(() => Object.keys(unsaved.value).length > 0 && void save(), AGAIN_MS)

  const without = <T>(map: Record<string, T>, key: string) => Object.fromEntries(Object.entries(map).filter(([other]) => other !== key))

  return { of, write, problems }
})
