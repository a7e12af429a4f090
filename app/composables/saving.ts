import { ApiProblem } from './api'

/**
 * Saving a form: what is wrong with it by the path of the field, and whether it is on its way. What was typed stays.
 *
 * @param whole the field at which a problem stands that belongs to none
 * @example
 * const { errors, saving, save } = useSaving('name')
 * const go = () => save(async () => emit('saved', await api('/api/things', { method: 'PUT', body: form.value })))
 */
export function useSaving(whole: string) {
  const errors = ref<Record<string, string>>({})
  const saving = ref(false)

  /** @returns whether it went */
  async function save(work: () => Promise<unknown>): Promise<boolean> {
    saving.value = true
    errors.value = {}
    try {
      await work()
      return true
    }
    catch (problem) {
      if (!(problem instanceof ApiProblem)) throw problem
      errors.value = Object.keys(problem.fields).length > 0 ? problem.fields : { [whole]: problem.message }
      return false
    }
    finally {
      saving.value = false
    }
  }

  return { errors, saving, save }
}
