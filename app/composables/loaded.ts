import { api, ApiProblem } from '~/composables/api'

/**
 * What is read once for as long as the component lives: null until it is there, or why it could not be read.
 *
 * @param then what is done when it is there, such as moving the cursor into it
 * @example
 * const { found, problem, load } = useLoaded<Thing[]>('/api/things')
 */
export function useLoaded<T>(path: string, then: () => void = () => undefined) {
  const found = shallowRef<T | null>(null)
  const problem = ref('')

  async function load(): Promise<void> {
    try {
      found.value = await api<T>(path)
      problem.value = ''
      then()
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
    }
  }
  void load()

  return { found, problem, load }
}
