import type { Permission } from '~~/shared/permissions'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

/** Each room of Set-up is for those who may set up what is in it; others are sent to where they work. */
export const onlyWith = (...any: Permission[]) => any.some(useMe().may) ? undefined : navigateTo('/')

/**
 * What a room of Set-up lists: every change answers with the whole list anew.
 *
 * @param path where it is read, with its query
 */
export function useSetUpList<T>(path: () => { path: string, query?: Record<string, unknown> }) {
  const list = shallowRef<T[] | null>(null)
  const { problem, trying: tryingTo } = useTrying()

  const trying = (work: () => Promise<T[]>) => tryingTo(async () => list.value = await work())
  const load = () => trying(() => {
    const { path: where, query } = path()
    return api<T[]>(where, { query })
  })
  watch(() => JSON.stringify(path()), () => {
    list.value = null
    void load()
  }, { immediate: true })

  return { list, problem, trying, load }
}
