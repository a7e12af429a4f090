import { api, ApiProblem } from '~/composables/api'
import { useMe } from '~/stores/me'

/** Set-up is for admins; others are sent to where they work. */
export const adminsOnly = () => useMe().me?.role === 'admin' ? undefined : navigateTo('/')

/** Some rooms are for leads too. */
export const leadsAndAdmins = () => useMe().me?.role === 'rep' ? navigateTo('/') : undefined

/**
 * What a room of Set-up lists: every change answers with the whole list anew.
 *
 * @param path where it is read, with its query
 */
export function useSetUpList<T>(path: () => { path: string, query?: Record<string, unknown> }) {
  const list = shallowRef<T[] | null>(null)
  const problem = ref('')

  async function trying(work: () => Promise<T[]>): Promise<void> {
    try {
      list.value = await work()
      problem.value = ''
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = Object.values(error.fields)[0] ?? error.message
    }
  }
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
