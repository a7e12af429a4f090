<script setup lang="ts">
import type { Field } from '~~/core/template/fields'
import { fillInFields } from '~~/core/template/fill-ins'
import type { TextedModule } from '~~/shared/modules'
import type { TemplateDetail } from '~~/shared/template'
import { api } from '~/composables/api'
import type { BulkWording } from '~/composables/bulk-wording'
import { usePictures } from '~/composables/pictures'
import { useLoaded } from '~/composables/loaded'

/** What a text to many says: out of a template that suits all of them, or in one's own words, and what is filled in for all. */
const { modules, errors, first = false } = defineProps<{
  modules: TextedModule[]
  errors: Record<string, string>
  /** Whether the cursor goes to the text as soon as it is there. */
  first?: boolean
}>()
const wording = defineModel<BulkWording>({ required: true })

const { found: templates, problem: noTemplates } = useLoaded<TemplateDetail[]>('/api/templates')
const { found: catalogue } = useLoaded(() => api<Field[]>('/api/templates/fields', { query: { modules } }))
const fields = computed(() => [...catalogue.value ?? [], ...fillInFields(wording.value.fillIns)])
const fitting = computed(() => templates.value?.filter(one => modules.every(module => one.modules.includes(module))) ?? [])
const OWN = 'own'
const template = computed({
  get: () => wording.value.templateId ?? OWN,
  set: (id: string) => {
    const chosen = fitting.value.find(one => one.id === id)
    wording.value.templateId = chosen?.id ?? null
    wording.value.templateVersion = chosen?.version ?? null
    wording.value.fillIns = chosen?.fillIns ?? []
    if (chosen) wording.value.body = chosen.body
    begun.value++
  },
})
/** The editor begins anew with another template. */
const begun = ref(0)
const text = useTemplateRef<{ openList: () => void, focus: () => void }>('text')
// where it is the first thing to do, one writes at once
watch(text, async (there) => {
  await nextTick()
  if (first) there?.focus()
})
const pictureIds = computed({ get: () => wording.value.pictureIds, set: ids => wording.value.pictureIds = ids })
const pictures = usePictures(pictureIds)
const chooser = useTemplateRef<{ open: () => void }>('chooser')
const fillInErrors = computed(() =>
  Object.fromEntries(wording.value.fillIns.map(({ key }) => [key, errors[`answers.${key}`] ?? ''])))
</script>

<template>
  <LabelledField
    id="bulk-template"
    v-slot="{ input }"
    label="Template"
    :error="errors.templateId ?? noTemplates"
  >
    <select
      v-bind="input"
      v-model="template"
      class="plain-field"
    >
      <option :value="OWN">
        none, in my own words
      </option>
      <option
        v-for="one in fitting"
        :key="one.id"
        :value="one.id"
      >
        {{ one.name }}
      </option>
    </select>
  </LabelledField>
  <div class="field">
    <p class="text-head">
      <span>Text</span>
      <button
        type="button"
        class="plain-button"
        @mousedown.prevent
        @click="text?.openList()"
      >
        Insert a field
      </button>
    </p>
    <TemplateText
      v-if="fields.length > 0"
      ref="text"
      :key="begun"
      v-model="wording.body"
      label="Text"
      :fields="fields"
      :invalid="!!errors.body"
      described-by="bulk-body-error"
    />
    <p
      id="bulk-body-error"
      class="field-error"
      role="alert"
    >
      {{ errors.body }}
    </p>
    <p>
      <button
        type="button"
        class="plain-button"
        @click="chooser?.open()"
      >
        Add a picture
      </button>
      <PictureChooser
        ref="chooser"
        @chosen="pictures.add"
      />
    </p>
    <LazyPictureTray
      v-if="pictureIds.length > 0 || pictures.comingIn.value > 0"
      :ids="pictureIds"
      :coming-in="pictures.comingIn.value"
      :line="null"
      @remove="pictures.remove"
    />
    <p
      v-if="pictures.problem.value || errors.pictureIds"
      class="field-error"
      role="alert"
    >
      {{ pictures.problem.value || errors.pictureIds }}
    </p>
  </div>
  <fieldset v-if="wording.fillIns.length > 0">
    <legend>The same for all</legend>
    <FillInFields
      v-model="wording.answers"
      :fill-ins="wording.fillIns"
      of="bulk-fill-in"
      :errors="fillInErrors"
    />
  </fieldset>
</template>

<style scoped>
.text-head { display: flex; gap: var(--space-6); align-items: baseline; }
fieldset { border: 0; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-4) var(--space-5); }
legend { font-weight: 700; padding-bottom: var(--space-2); }
select { width: 100%; }
</style>
