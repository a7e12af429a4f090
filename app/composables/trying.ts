import { ApiProblem } from './api'

/**
 * What the server says is wrong. Whatever else went wrong is thrown on: it is a fault of ours.
 *
 * @example
 * catch (error) {
 *   problem.value = problemIn(error).message
 * }
 */
export function problemIn(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error
  throw error
}

/** Which of its fields is wrong first, or else what is wrong with the whole. */
export const firstProblem = ({ fields, message }: ApiProblem): string => Object.values(fields)[0] ?? message

/**
 * Asking the server for something that it may refuse: why it did, by the field where it is about one, and whether the
 * answer is awaited. What was refused stays on screen until something goes.
 *
 * @example
 * const { problem, busy, trying } = useTrying()
 * const remove = () => trying(() => api(`/api/things/${id}`, { method: 'DELETE' }))
 */
export function useTrying() {
  const problem = ref('')
  const errors = ref<Record<string, string>>({})
  const busy = ref(false)

  /** @returns whether it went */
  async function trying(work: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    try {
      await work()
      problem.value = ''
      errors.value = {}
      return true
    }
    catch (error) {
      const refused = problemIn(error)
      errors.value = refused.fields
      problem.value = firstProblem(refused)
      return false
    }
    finally {
      busy.value = false
    }
  }

  return { problem, errors, busy, trying }
}
