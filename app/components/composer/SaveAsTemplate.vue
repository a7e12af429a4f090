<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { MODULE_FACTS, type TextedModule } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** What was just written as a template of one's own, with the person's values as fields again if wanted. */
const { recordId, module, text } = defineProps<{ recordId: string, module: TextedModule, text: string }>()
const emit = defineEmits<{ saved: [name: string], close: [] }>()

const id = uuid()
const name = ref('')
const withFields = ref(true)
const turned = ref<string | null>(null)
const { errors, saving, save: saveWith } = useSaving('name')
const body = computed(() => withFields.value ? turned.value ?? text : text)

onMounted(async () => {
  turned.value = await api<{ body: string }>(`/api/records/${recordId}/as-template`, { method: 'POST', body: { text } }).then(
    ({ body: made }) => made,
    () => null,
  )
})

const save = () => saveWith(async () => {
  await api('/api/templates', { method: 'POST', body: { id, name: name.value, modules: [module], body: body.value, audience: 'mine' } })
  emit('saved', name.value)
})
</script>

<template>
  <Dialog
    visible
    modal
    header="Save as a template"
    :style="{ width: '32rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      @submit.prevent="save"
    >
      <LabelledField
        id="new-template-name"
        v-slot="{ input }"
        label="Name"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="name"
          placeholder="Bring the bikes back"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <label
        v-if="turned && turned !== text"
        class="turn"
      ><input
        v-model="withFields"
        type="checkbox"
      > Let names and other values be filled in for each person</label>
      <p class="words">
        <TemplateWords :source="body" />
      </p>
      <p
        v-if="errors.body"
        class="field-error"
        role="alert"
      >
        {{ errors.body }}
      </p>
      <p class="small quiet">
        For {{ MODULE_FACTS[module].many.toLowerCase() }}, and for you alone until you share it under Templates.
      </p>
      <Button
        type="submit"
        label="Save this template"
        :loading="saving"
      />
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.turn { display: flex; gap: var(--space-3); align-items: center; }
.words { border-left: 3px solid var(--accent); padding-left: var(--space-5); font-size: var(--size-text); }
</style>
