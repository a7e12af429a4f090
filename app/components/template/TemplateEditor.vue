<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { v7 as uuid } from 'uuid'
import type { Field } from '~~/core/template/fields'
import { measureText } from '~~/core/text/measure'
import { MODULE_FACTS, PERSON_MODULES } from '~~/shared/modules'
import { templateForm, type TemplateForm } from '~~/shared/schemas/template'
import type { TemplateDetail, TemplateTrial } from '~~/shared/template'
import { api, ApiProblem } from '~/composables/api'

/** A template as Liquid, with the fields to put in and what would be sent, side by side. */
const { template } = defineProps<{ template: TemplateDetail | null }>()
const emit = defineEmits<{ saved: [id: string] }>()

const { defineField, errors, handleSubmit, isSubmitting, setErrors } = useForm<TemplateForm>({
  validationSchema: toTypedSchema(templateForm),
  initialValues: template ? { name: template.name, modules: [...template.modules], body: template.body } : { name: '', modules: ['lead'], body: '' },
})
const quiet = { validateOnModelUpdate: false }
const name = defineField('name', quiet)[0]
const modules = defineField('modules', quiet)[0] as Ref<TemplateForm['modules']>
const body = defineField('body', quiet)[0] as Ref<string>
const locked = computed(() => template !== null && !template.mayEdit)
const field = useTemplateRef<HTMLTextAreaElement>('field')

const fields = shallowRef<Field[]>([])
watch(modules, async chosen => fields.value = chosen.length > 0 ? await api<Field[]>('/api/templates/fields', { query: { modules: [...chosen] } }).catch(() => fields.value) : [], { immediate: true })
const groups = computed(() => (['person', 'company', 'sender', 'firm'] as const).map(group => ({
  label: { person: 'The person', company: 'Their company', sender: 'Whoever sends', firm: 'Our firm' }[group],
  fields: fields.value.filter(one => one.group === group),
})).filter(group => group.fields.length > 0))

const trial = shallowRef<TemplateTrial | null>(null)
const trialFailed = ref('')
const typed = refDebounced(body, 250)
watch([typed, modules], async () => {
  try {
    trial.value = typed.value ? await api<TemplateTrial>('/api/templates/try', { method: 'POST', body: { body: typed.value, modules: modules.value, recordId: null } }) : null
    trialFailed.value = ''
  }
  catch (error) {
    trialFailed.value = error instanceof Error ? error.message : ''
  }
}, { immediate: true })
const measure = computed(() => trial.value?.text ? measureText(trial.value.text) : null)

function toggle(module: typeof PERSON_MODULES[number]): void {
  modules.value = PERSON_MODULES.filter(one => one === module ? !modules.value.includes(one) : modules.value.includes(one))
}

/** Puts a field where the cursor is, in a way that undo knows. */
function insert({ path, kind }: Field): void {
  field.value?.focus()
  document.execCommand('insertText', false, kind === 'date' ? `{{ ${path} | date: "day" }}` : `{{ ${path} }}`)
}

const problem = ref('')
const newId = uuid()
const submit = handleSubmit(async (form) => {
  problem.value = ''
  try {
    if (template) await api(`/api/templates/${template.id}`, { method: 'PUT', body: { ...form, version: template.version } })
    else await api('/api/templates', { method: 'POST', body: { ...form, id: newId } })
    emit('saved', template?.id ?? newId)
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    setErrors(error.fields as Record<string, string>)
    problem.value = Object.keys(error.fields).length > 0 ? '' : error.message
  }
})
</script>

<template>
  <form
    class="editor"
    novalidate
    @submit="submit"
  >
    <div class="write">
      <div class="field">
        <label for="template-name">Name</label>
        <InputText
          id="template-name"
          v-model="name"
          :readonly="locked"
          :invalid="!!errors.name"
          aria-describedby="template-name-error"
        />
        <p
          id="template-name-error"
          class="field-error"
        >
          {{ errors.name }}
        </p>
      </div>
      <fieldset
        class="modules"
        :disabled="locked"
      >
        <legend class="field-label">
          For
        </legend>
        <label
          v-for="module in PERSON_MODULES"
          :key="module"
        >
          <input
            type="checkbox"
            :checked="modules.includes(module)"
            @change="toggle(module)"
          > {{ MODULE_FACTS[module].many }}
        </label>
        <p class="field-error">
          {{ errors.modules }}
        </p>
      </fieldset>
      <div class="field">
        <label for="template-body">Text, in Liquid</label>
        <textarea
          id="template-body"
          ref="field"
          v-model="body"
          class="body"
          rows="8"
          spellcheck="true"
          :readonly="locked"
          :aria-invalid="!!errors.body"
          aria-describedby="template-body-error template-problems"
        />
        <p
          id="template-body-error"
          class="field-error"
          role="alert"
        >
          {{ errors.body }}
        </p>
      </div>
      <p
        v-if="problem"
        class="notice failed"
        role="alert"
      >
        {{ problem }}
      </p>
      <p
        v-if="locked"
        class="quiet"
      >
        {{ template!.owner }} looks after this one. Only the owner and leads change it.
      </p>
      <div class="acts">
        <Button
          v-if="!locked"
          type="submit"
          :label="template ? 'Save as a new version' : 'Save this template'"
          :loading="isSubmitting"
        />
        <p
          v-if="template"
          class="quiet small"
        >
          Version {{ template.version }}, looked after by {{ template.owner }}
        </p>
      </div>
    </div>
    <div class="beside">
      <section aria-live="polite">
        <h2>What would be sent<template v-if="trial?.record"> to {{ trial.record.name }}</template></h2>
        <p
          v-if="trialFailed"
          class="notice failed"
        >
          {{ trialFailed }}
        </p>
        <p
          v-else-if="!trial"
          class="quiet"
        >
          Write a text, and it is shown here for the person contacted last.
        </p>
        <template v-else-if="trial.text && measure">
          <p class="filled">
            {{ trial.text }}
          </p>
          <p class="small quiet figures">
            {{ measure.units }} units, {{ measure.parts === 1 ? '1 part' : `${measure.parts} parts` }}<template v-if="measure.encoding === 'UCS-2'">, with characters that make it dear</template>
          </p>
        </template>
        <ul
          v-else
          id="template-problems"
          class="problems"
        >
          <li
            v-for="(one, index) in trial.problems"
            :key="index"
          >
            <strong>Line {{ one.line }}, character {{ one.column }}:</strong> {{ one.message }}
          </li>
          <li
            v-for="(hole, index) in trial.holes"
            :key="`hole-${index}`"
          >
            <strong>{{ hole.label }}</strong> is empty for {{ trial.record?.name }}, so nothing would be sent. Give a stand-in: <code>{{ `\{\{ ${hole.path} | default: "…" \}\}` }}</code>
          </li>
          <li v-if="!trial.record && trial.problems.length === 0">
            There is nobody in these modules yet to try it on.
          </li>
        </ul>
      </section>
      <section v-if="!locked">
        <h2>Fields to put in</h2>
        <div
          v-for="group in groups"
          :key="group.label"
          class="group"
        >
          <h3 class="field-label">
            {{ group.label }}
          </h3>
          <button
            v-for="one in group.fields"
            :key="one.path"
            type="button"
            class="pill"
            :title="`such as ${one.example}`"
            @click="insert(one)"
          >
            {{ one.label }}
          </button>
        </div>
      </section>
    </div>
  </form>
</template>

<style scoped>
.editor { display: grid; grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr); gap: 2rem; padding: 0.95rem 1.5rem 3rem; align-content: start; }
.write { display: grid; gap: 0.6rem; align-content: start; }
.body { width: 100%; border: 1px solid var(--field-rule); border-radius: 6px; background: var(--surface); padding: 0.6rem 0.75rem; font-size: var(--size-text); line-height: 1.5; resize: vertical; }
.modules { border: 0; margin: 0; padding: 0; display: flex; gap: 1.2rem; flex-wrap: wrap; }
.modules legend { padding-bottom: 0.2rem; }
.modules input { accent-color: var(--mulberry); }
.acts { display: flex; align-items: center; gap: 1rem; }
.beside { display: grid; gap: 1.5rem; align-content: start; }
.beside h2 { padding-bottom: 0.5rem; }
.filled { white-space: pre-wrap; font-size: var(--size-text); border-left: 3px solid var(--mulberry); padding-left: 0.75rem; }
.problems { display: grid; gap: 0.5rem; color: var(--brick); }
.problems code { color: var(--ink); }
.group { padding-bottom: 0.6rem; }
.group h3 { font-family: var(--reading); font-weight: 400; padding-bottom: 0.25rem; }
.pill { border: 1px solid transparent; border-bottom-color: var(--mulberry); border-radius: 4px; background: var(--mulberry-ground); color: var(--mulberry); padding: 0.1rem 0.45rem; margin: 0 0.35rem 0.35rem 0; cursor: pointer; }
.pill:hover { border-color: var(--mulberry); }
@media (max-width: 1000px) { .editor { grid-template-columns: 1fr; padding-inline: 0.75rem; } }
</style>
