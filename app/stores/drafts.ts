import { defineStore } from 'pinia'
import { useDebounceFn, useEventListener, useStorage } from '@vueuse/core'
import { newRef } from '~~/core/message/ref'
import type { KeptDraft } from '~~/shared/texting'
import { api, asMe } from '~/composables/api'
import { useMe } from './me'

/** What is written and not sent. */
export interface Draft {
  text: string
  templateId: string | null
  templateVersion: number | null
  pictureIds: string[]
  /** The reference that the text will have. */
  ref: string
  /** When it was written, epoch milliseconds. */
  at: number
}

const randomBits = () => crypto.getRandomValues(new Uint32Array(1))[0]!
const fresh = (): Draft => ({ text: '', templateId: null, templateVersion: null, pictureIds: [], ref: newRef(randomBits), at: 0 })

/**
 * Drafts by what they are for. They lie in this browser, apart for each colleague, so that they survive a failed
 * send, a reload and an expired sign-in; and on the server, so that another machine has them too.
 */
export const useDrafts = defineStore('drafts', () => {
  const kept = useStorage<Record<string, Draft>>(`plauder-drafts-${useMe().me?.id ?? 'nobody'}`, {})
  /** Of what is still empty, so that its reference stays the same. */
  const begun = new Map<string, Draft>()
  const unsaved = new Map<string, Draft>()

  function of(key: string): Draft {
    const there = kept.value[key] ?? begun.get(key) ?? fresh()
    // drafts of before there were pictures lie in browsers without them
    there.pictureIds ??= []
    if (!kept.value[key]) begun.set(key, there)
    return there
  }

  function keep(key: string, values: Partial<Omit<Draft, 'at'>>): void {
    const draft = { ...of(key), ...values, at: Date.now() }
    if (draft.text === '' && draft.pictureIds.length === 0) kept.value = without(key)
    else kept.value = { ...kept.value, [key]: draft }
    save(key, draft)
  }

  /** What was sent is no draft any more; the next one has a reference of its own. */
  function drop(key: string): void {
    const draft = of(key)
    kept.value = without(key)
    begun.delete(key)
    save(key, { ...draft, text: '', pictureIds: [], at: Date.now() })
  }

  const without = (key: string) => Object.fromEntries(Object.entries(kept.value).filter(([other]) => other !== key))

  function save(key: string, draft: Draft): void {
    unsaved.set(key, draft)
    void saveSoon()
  }

  const saveSoon = useDebounceFn(async () => {
    for (const [key, draft] of unsaved) {
      // what cannot be saved now lies in this browser, and goes with the next one
      const saved = await api('/api/drafts', { method: 'PUT', body: { key, ...draft } }).then(() => true, () => false)
      if (saved && unsaved.get(key) === draft) unsaved.delete(key)
    }
  }, 600)

  // whoever closes the page right after a word keeps the word
  useEventListener(window, 'pagehide', () => {
    for (const [key, draft] of unsaved)
      void fetch('/api/drafts', {
        method: 'PUT',
        keepalive: true,
        headers: { 'content-type': 'application/json', ...asMe() },
        body: JSON.stringify({ key, ...draft }),
      })
  })

  /** Takes up what was written on other machines: of two, the later one counts. */
  async function load(): Promise<KeptDraft[]> {
    const there = await api<KeptDraft[]>('/api/drafts')
    const newer = there.filter(({ key, at }) => at > (kept.value[key]?.at ?? 0) && !unsaved.has(key))
    if (newer.length > 0)
      kept.value = { ...kept.value, ...Object.fromEntries(newer.map(({ key, recordId, name, ...draft }) => [key, draft])) }
    return there
  }

  return { of, keep, drop, load, kept }
})
