import { focusFirstWrong, formOf } from './first-wrong'
import { useTrying } from './trying'

/**
 * Saving a form: what is wrong with it by the path of the field, and whether it is on its way. What was typed stays, and the
 * cursor goes to the first field that is wrong.
 *
 * @param whole the field at which a problem stands that belongs to none
 * @example
 * const { errors, saving, save } = useSaving('name')
 * const go = () => save(async () => emit('saved', await api('/api/things', { method: 'PUT', body: form.value })))
 */
export function useSaving(whole: string) {
  const { problem, errors, busy: saving, trying } = useTrying()

  /** @returns whether it went */
  async function save(work: () => Promise<unknown>): Promise<boolean> {
    const form = formOf(globalThis.document?.activeElement ?? null)
    errors.value = {}
    const went = await trying(work)
    if (!went && Object.keys(errors.value).length === 0) errors.value = { [whole]: problem.value }
    if (!went) await focusFirstWrong(form)
    return went
  }

  return { errors, saving, save }
}
