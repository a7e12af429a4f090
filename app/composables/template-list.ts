import type { TemplateDetail } from '~~/shared/template'
import { api, ApiProblem } from '~/composables/api'

export interface Folder { name: string, templates: TemplateDetail[] }

/** The templates that are offered to me, found by name, folder and words; favourites first, then by folder. */
export function useTemplateList() {
  const templates = shallowRef<TemplateDetail[] | null>(null)
  const problem = ref('')
  const words = ref('')

  async function trying(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      problem.value = ''
      return true
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
      return false
    }
  }
  const load = () => trying(async () => templates.value = await api<TemplateDetail[]>('/api/templates'))
  void load()

  const found = computed(() => {
    const all = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
    return templates.value?.filter(({ name, folder, description, body }) => all.every(word => `${name} ${folder} ${description} ${body}`.toLowerCase().includes(word))) ?? []
  })
  const folders = computed(() => [...new Set(templates.value?.map(({ folder }) => folder).filter(Boolean))].sort((a, b) => a.localeCompare(b)))
  const shown = computed<Folder[]>(() => {
    const near = found.value.filter(({ favourite }) => favourite)
    const others = found.value.filter(({ favourite }) => !favourite)
    return [
      { name: 'Favourites', templates: near },
      ...folders.value.map(name => ({ name, templates: others.filter(({ folder }) => folder === name) })),
      { name: folders.value.length > 0 ? 'In no folder' : '', templates: others.filter(({ folder }) => folder === '') },
    ].filter(one => one.templates.length > 0)
  })

  const favour = ({ id, favourite }: TemplateDetail) => trying(async () => {
    await api(`/api/templates/${id}/favourite`, { method: 'PUT', body: { favourite: !favourite } })
    templates.value = templates.value!.map(one => one.id === id ? { ...one, favourite: !favourite } : one)
  })
  const retire = ({ id }: TemplateDetail) => trying(async () => {
    await api(`/api/templates/${id}`, { method: 'DELETE' })
    templates.value = templates.value!.filter(one => one.id !== id)
  })

  return { templates, problem, words, found, folders, shown, load, favour, retire }
}
