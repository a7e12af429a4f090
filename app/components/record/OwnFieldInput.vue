<script setup lang="ts">
import type { Field } from '~~/core/template/fields'

/** A field that the firm has added, asked for as its kind is. */
const { field, error = '' } = defineProps<{ field: Field, error?: string }>()
const value = defineModel<unknown>({ required: true })

const TYPES: Partial<Record<Field['kind'], string>> = { date: 'date', time: 'time', number: 'number', money: 'number' }
const YES_NO = [{ value: true, label: 'yes' }, { value: false, label: 'no' }]
const described = computed(() => error ? `${field.path}-error` : undefined)
</script>

<template>
  <div class="field">
    <label
      :id="`${field.path}-label`"
      :for="field.path"
    >{{ field.label }}</label>
    <Select
      v-if="field.kind === 'choice' || field.kind === 'yes-no'"
      v-model="value"
      :input-id="field.path"
      :options="field.kind === 'choice' ? field.options : YES_NO"
      :option-value="field.kind === 'choice' ? undefined : 'value'"
      :option-label="field.kind === 'choice' ? undefined : 'label'"
      show-clear
      :aria-labelledby="`${field.path}-label`"
      placeholder="Not known"
      :invalid="!!error"
      :aria-describedby="described"
    />
    <InputText
      v-else
      :id="field.path"
      :model-value="value === undefined || value === null ? '' : String(value)"
      :type="TYPES[field.kind] ?? 'text'"
      :step="field.kind === 'number' || field.kind === 'money' ? 'any' : undefined"
      :placeholder="field.example"
      autocomplete="off"
      :invalid="!!error"
      :aria-describedby="described"
      @update:model-value="value = $event"
    />
    <p
      v-if="error"
      :id="described"
      class="field-error"
    >
      {{ error }}
    </p>
  </div>
</template>
