import { v7 as uuid } from 'uuid'
import type { BulkWhom } from '~~/shared/schemas/bulk-text'
import { useMe } from '~/stores/me'
import { shortDay } from '~/words/time'
import { api } from './api'
import { keptOnPage, type BulkWording } from './bulk-wording'
import { useTrying } from './trying'

/** As a request says it: what is left out is as at first. */
export type ChosenWhom = { [K in keyof BulkWhom]?: BulkWhom[K] extends infer T ? Partial<T> : never }

/**
 * Beginning a bulk text to whoever is chosen; it is written on a page of its own.
 *
 * @example
 * const { problem, busy, textMany } = useTextMany()
 * const text = () => textMany('Leads', { selection, groupId: null })
 */
export function useTextMany() {
  const { me } = useMe()
  const { problem, busy, trying } = useTrying()

  /**
   * @param whom how they are called, for a name that can be changed
   * @param wording what it begins with
   */
  async function textMany(whom: string, chosen: ChosenWhom, wording: BulkWording | null = null): Promise<void> {
    if (busy.value) return
    const id = uuid()
    const name = `${whom}, ${shortDay(Date.now(), me!.zone)}`.slice(0, 80)
    if (wording) sessionStorage.setItem(keptOnPage(id), JSON.stringify(wording))
    if (await trying(() => api('/api/bulk-texts', { method: 'POST', body: { id, name, ...chosen } }))) await navigateTo(`/bulk/${id}`)
  }

  return { problem, busy, textMany }
}
