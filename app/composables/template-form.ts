import { toTypedSchema } from '@vee-validate/yup'
import { refDebounced } from '@vueuse/core'
import { useForm } from 'vee-validate'
import { v7 as uuid } from 'uuid'
import type { Field } from '~~/core/template/fields'
import { fillInFields } from '~~/core/template/fill-ins'
import { TEXTED_MODULES, type TextedModule } from '~~/shared/modules'
import { templateForm, type TemplateForm } from '~~/shared/schemas/template'
import type { TemplateDetail, TemplateTrial } from '~~/shared/template'
import { api } from '~/composables/api'
import { problemIn } from '~/composables/trying'
import { newestOnly } from '~/composables/newest'
import { useUnsaved } from '~/composables/unsaved'

const EMPTY: TemplateForm = {
  name: '',
  description: '',
  folder: '',
  modules: ['lead'],
  body: '',
  fillIns: [],
  audience: 'mine',
  teamId: null,
}

/** Writing a template: its form, the fields it may use, what would be sent, and saving it as a new version. */
export function useTemplateForm(template: TemplateDetail | null, saved: (id: string) => void) {
  const { defineField, errors, values, handleSubmit, isSubmitting, setErrors, setFieldValue } = useForm<TemplateForm>({
    validationSchema: toTypedSchema(templateForm),
    initialValues: template ? { ...EMPTY, ...pick(template) } : structuredClone(EMPTY),
  })
  const quiet = { validateOnModelUpdate: false }
  const field = <Key extends keyof TemplateForm>(key: Key) => defineField(key, quiet)[0] as Ref<TemplateForm[Key]>
  const form = {
    name: field('name'),
    description: field('description'),
    folder: field('folder'),
    modules: field('modules'),
    body: field('body'),
    fillIns: field('fillIns'),
    audience: field('audience'),
    teamId: field('teamId'),
  }

  const catalogue = shallowRef<Field[]>([])
  const beginFields = newestOnly()
  watch(form.modules, async (chosen) => {
    const isNewest = beginFields()
    const there
      = chosen.length > 0 ? await api<Field[]>('/api/templates/fields', { query: { modules: [...chosen] } }).catch(() => catalogue.value) : []
    if (isNewest()) catalogue.value = there
  }, { immediate: true })
  const fields = computed(() => [...catalogue.value, ...fillInFields(form.fillIns.value.filter(({ label }) => label !== ''))])

  const toggle = (module: TextedModule) =>
    (form.modules.value = TEXTED_MODULES.filter(one =>
      one === module ? !form.modules.value.includes(one) : form.modules.value.includes(one),
    ))

  const recordId = ref<string | null>(null)
  const trial = shallowRef<TemplateTrial | null>(null)
  const trialFailed = ref('')
  const tried = refDebounced(
    computed(() =>
      JSON.stringify({
        body: form.body.value,
        modules: form.modules.value,
        fillIns: form.fillIns.value.filter(({ label }) => label !== ''),
        recordId: recordId.value,
      }),
    ),
    200,
  )
  const beginTrial = newestOnly()
  watch(tried, async (body) => {
    const isNewest = beginTrial()
    const asked = JSON.parse(body) as { body: string }
    try {
      const answer = asked.body.trim() ? await api<TemplateTrial>('/api/templates/try', { method: 'POST', body: asked }) : null
      if (!isNewest()) return
      trial.value = answer
      trialFailed.value = ''
    }
    catch (error) {
      if (isNewest()) trialFailed.value = error instanceof Error ? error.message : ''
    }
  }, { immediate: true })

  const begun = JSON.stringify(values)
  const problem = ref('')
  const newId = uuid()
  let isSaved = false
  const { mayLeave } = useUnsaved(() => !isSaved && JSON.stringify(values) !== begun)
  const save = handleSubmit(async (sound) => {
    problem.value = ''
    try {
      if (template) await api(`/api/templates/${template.id}`, { method: 'PUT', body: { ...sound, version: template.version } })
      else await api('/api/templates', { method: 'POST', body: { ...sound, id: newId } })
      isSaved = true
      saved(template?.id ?? newId)
    }
    catch (error) {
      const { fields: wrong, message } = problemIn(error)
      setErrors(wrong)
      problem.value = Object.keys(wrong).length > 0 ? '' : message
    }
  })

  const trying = { recordId, trial, trialFailed }
  return { form, values, errors, fields, toggle, ...trying, problem, save, saving: isSubmitting, setFieldValue, mayLeave }
}

const pick = ({ name, description, folder, modules, body, fillIns, audience, team }: TemplateDetail): TemplateForm => ({
  name,
  description,
  folder,
  modules: [...modules],
  body,
  fillIns: fillIns.map(one => ({ ...one })),
  audience,
  teamId: team?.id ?? null,
})
