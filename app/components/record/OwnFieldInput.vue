<script setup lang="ts">
import type { Field } from '~~/core/template/fields'

/** A field that the firm has added, asked for as its kind is. */
const { field, error = '' } = defineProps<{ field: Field, error?: string }>()
const value = defineModel<unknown>({ required: true })

const TYPES: Partial<Record<Field['kind'], string>> = { date: 'date', time: 'time', number: 'number', money: 'number' }
const choices = computed(() => field.kind === 'yes-no'
  ? [{ value: true, label: 'yes' }, { value: false, label: 'no' }]
  : field.kind === 'choice' ? (field.options ?? []).map(option => ({ value: option, label: option })) : null)
</script>

<template>
  <LabelledField
    :id="field.path"
    v-slot="{ input, choice }"
    :label="field.label"
    :error="error"
  >
    <Select
      v-if="choices"
      v-bind="choice"
      v-model="value"
      :options="choices"
      option-value="value"
      option-label="label"
      show-clear
      placeholder="Not known"
    />
    <InputText
      v-else
      v-bind="input"
      :model-value="value === undefined || value === null ? '' : String(value)"
      :type="TYPES[field.kind] ?? 'text'"
      :step="field.kind === 'number' || field.kind === 'money' ? 'any' : undefined"
      :placeholder="field.example"
      autocomplete="off"
      @update:model-value="value = $event"
    />
  </LabelledField>
</template>
