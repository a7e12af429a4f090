<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { FIELD_KINDS, type FieldKind } from '~~/core/template/fields'
import type { Module } from '~~/shared/modules'
import type { OwnField } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { KIND_WORDS } from '~/words/fields'

/** Making a field, or changing what it is called. What was typed stays when saving fails. */
const { module, field } = defineProps<{ module: Module, field: OwnField | null }>()
const emit = defineEmits<{ saved: [fields: OwnField[]], close: [] }>()

const id = field?.id ?? uuid()
const label = ref(field?.label ?? '')
const kind = ref<FieldKind>(field?.kind ?? 'text')
const example = ref(field?.example ?? '')
const options = ref(field?.options.join('\n') ?? '')
const { errors, saving, save: saveWith } = useSaving('label')
const KINDS = FIELD_KINDS.map(value => ({ value, label: KIND_WORDS[value] }))

const save = () => saveWith(async () => {
  const body = {
    id,
    module,
    label: label.value,
    kind: kind.value,
    example: example.value,
    options:
      kind.value === 'choice'
        ? options.value
            .split('\n')
            .map(one => one.trim())
            .filter(Boolean)
        : [],
  }
  emit('saved', await api<OwnField[]>(field ? `/api/set-up/fields/${id}` : '/api/set-up/fields', { method: field ? 'PUT' : 'POST', body }))
})
const optionsError = computed(() => Object.entries(errors.value).find(([path]) => path.startsWith('options'))?.[1])
</script>

<template>
  <FormDialog
    :header="field ? `Change “${field.label}”` : 'A new field'"
    width="26rem"
    :written="{ label, kind, example, options }"
    @close="emit('close')"
  >
    <form
      class="form"
      @submit.prevent="save"
    >
      <LabelledField
        id="field-label"
        v-slot="{ input }"
        label="Name"
        :error="errors.label"
      >
        <InputText
          v-bind="input"
          v-model="label"
          placeholder="Lease ends"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <LabelledField
        v-if="!field"
        id="field-kind"
        v-slot="{ choice }"
        label="What it holds"
        :error="errors.kind"
      >
        <Select
          v-bind="choice"
          v-model="kind"
          :options="KINDS"
          option-value="value"
          option-label="label"
        />
      </LabelledField>
      <LabelledField
        v-if="kind === 'choice'"
        id="field-options"
        v-slot="{ input }"
        label="To choose from, one a line"
        :error="optionsError"
      >
        <Textarea
          v-bind="input"
          v-model="options"
          rows="5"
        />
      </LabelledField>
      <LabelledField
        id="field-example"
        v-slot="{ input }"
        label="An example, for forms and for trying templates"
        :error="errors.example"
      >
        <InputText
          v-bind="input"
          v-model="example"
          autocomplete="off"
        />
      </LabelledField>
      <Button
        type="submit"
        :label="field ? 'Save the field' : 'Save the field'"
        :loading="saving"
      />
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
</style>
