import type { RetiredTemplate, TemplateDetail } from '~~/shared/template'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** As many are drawn at once: more would make every key slow, and nobody reads further. */
const STEP = 100

export interface Folder { name: string, templates: TemplateDetail[] }

/** The templates that are offered to me, found by name, folder and words; favourites first, then by folder. */
export function useTemplateList() {
  const templates = shallowRef<TemplateDetail[] | null>(null)
  const { problem, trying } = useTrying()
  const words = ref('')

  const load = () => trying(async () => templates.value = await api<TemplateDetail[]>('/api/templates'))
  void load()

  const searched = computed(
    () =>
      templates.value?.map(template => ({
        template,
        in: `${template.name} ${template.folder} ${template.description} ${template.body}`.toLowerCase(),
      })) ?? [],
  )
  const found = computed(() => {
    const all = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
    return searched.value.filter(one => all.every(word => one.in.includes(word))).map(({ template }) => template)
  })
  const most = ref(STEP)
  watch(words, () => most.value = STEP)
  const showMore = () => most.value += STEP
  const folders = computed(() =>
    [...new Set(templates.value?.map(({ folder }) => folder).filter(Boolean))].sort((a, b) => a.localeCompare(b)),
  )
  const inFolders = computed<Folder[]>(() => {
    const near = found.value.filter(({ favourite }) => favourite)
    const others = found.value.filter(({ favourite }) => !favourite)
    return [
      { name: 'Favourites', templates: near },
      ...folders.value.map(name => ({ name, templates: others.filter(({ folder }) => folder === name) })),
      { name: folders.value.length > 0 ? 'In no folder' : '', templates: others.filter(({ folder }) => folder === '') },
    ].filter(one => one.templates.length > 0)
  })
  const shown = computed<Folder[]>(() => {
    let room = most.value
    return inFolders.value.flatMap(({ name, templates: all }) => {
      const some = all.slice(0, room)
      room -= some.length
      return some.length > 0 ? [{ name, templates: some }] : []
    })
  })
  /** The one that is opened before anybody has chosen: the first while nothing is searched for. */
  const first = shallowRef<TemplateDetail | null>(null)
  watch(shown, (now) => {
    if (words.value === '') first.value = now[0]?.templates[0] ?? null
  })
  const hidden = computed(() => Math.max(0, found.value.length - most.value))

  const favour = ({ id, favourite }: TemplateDetail) => trying(async () => {
    await api(`/api/templates/${id}/favourite`, { method: 'PUT', body: { favourite: !favourite } })
    templates.value = templates.value!.map(one => one.id === id ? { ...one, favourite: !favourite } : one)
  })
  const retire = ({ id }: TemplateDetail) => trying(async () => {
    await api(`/api/templates/${id}`, { method: 'DELETE' })
    templates.value = templates.value!.filter(one => one.id !== id)
    if (retired.value) await loadRetired()
  })

  /** Those that I can bring back; null until somebody asks for them. */
  const retired = shallowRef<RetiredTemplate[] | null>(null)
  const loadRetired = () => trying(async () => retired.value = await api<RetiredTemplate[]>('/api/templates/retired'))
  const restore = ({ id }: RetiredTemplate) => trying(async () => {
    await api(`/api/templates/${id}/restore`, { method: 'POST', body: {} })
    retired.value = retired.value!.filter(one => one.id !== id)
    templates.value = await api<TemplateDetail[]>('/api/templates')
  })

  return { templates, problem, words, found, folders, shown, hidden, first, showMore, load, favour, retire, retired, loadRetired, restore }
}
