import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'
import { useMe } from './me'

/**
 * What is written and not sent, by what it is for. It lies in this browser, apart for each colleague,
 * so that it survives a failed send, a reload and an expired sign-in.
 */
export interface Draft { text: string, templateId: string | null, templateVersion: number | null }

const empty = (): Draft => ({ text: '', templateId: null, templateVersion: null })

export const useDrafts = defineStore('drafts', () => {
  const kept = useStorage<Record<string, Draft>>(`plauder-drafts-${useMe().me?.id ?? 'nobody'}`, {})

  const of = (key: string): Draft => kept.value[key] ?? empty()

  function keep(key: string, draft: Draft): void {
    if (draft.text === '') drop(key)
    else kept.value = { ...kept.value, [key]: draft }
  }

  function drop(key: string): void {
    kept.value = Object.fromEntries(Object.entries(kept.value).filter(([other]) => other !== key))
  }

  return { of, keep, drop }
})
