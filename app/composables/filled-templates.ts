import type { FilledTemplate, FilledTemplates, TextContext } from '~~/shared/template'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/**
 * The templates for a person, filled; anew when it is said what the text is about.
 *
 * @param path where they are: those of a record, or of a number on none
 * @param reference the one that the text will have
 */
export function useFilledTemplates(path: string, reference: string) {
  const templates = shallowRef<FilledTemplate[] | null>(null)
  const contexts = shallowRef<TextContext[]>([])
  const aboutId = ref<string | null>(null)
  const { problem, trying } = useTrying()

  const load = () => trying(async () => {
    const found = await api<FilledTemplates>(path, { query: { aboutId: aboutId.value ?? undefined, ref: reference } })
    templates.value = found.templates
    contexts.value = found.contexts
  })
  watch(aboutId, load, { immediate: true })

  /** @throws ApiProblem with `answers.…` for each fill-in that does not fit */
  const fill = (templateId: string, answers: Record<string, string>) =>
    api<Pick<FilledTemplate, 'text' | 'missing'>>(`${path}/${templateId}`, {
      method: 'POST',
      body: { answers, aboutId: aboutId.value, ref: reference },
    })

  async function favour(template: FilledTemplate): Promise<void> {
    const favourite = !template.favourite
    await trying(async () => {
      await api(`/api/templates/${template.id}/favourite`, { method: 'PUT', body: { favourite } })
      templates.value = templates.value!.map(one => one.id === template.id ? { ...one, favourite } : one)
    })
  }

  return { templates, contexts, aboutId, problem, load, fill, favour }
}
