<script setup lang="ts">
import { DayField, TimeField } from '#components'
import type { Component } from 'vue'
import type { Field } from '~~/core/template/fields'

/** A field that the firm has added, asked for as its kind is. */
const { field, error = '' } = defineProps<{ field: Field, error?: string }>()
const value = defineModel<unknown>({ required: true })

const TYPED: Partial<Record<Field['kind'], Component>> = { date: DayField, time: TimeField }
const shown = computed(() => value.value === undefined || value.value === null ? '' : String(value.value))
const isNumber = computed(() => field.kind === 'number' || field.kind === 'money')
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
    <component
      :is="TYPED[field.kind]"
      v-else-if="TYPED[field.kind]"
      v-bind="input"
      :model-value="shown"
      roomy
      @update:model-value="value = $event"
    />
    <InputText
      v-else
      v-bind="input"
      :model-value="shown"
      :type="isNumber ? 'number' : 'text'"
      :step="isNumber ? 'any' : undefined"
      :placeholder="field.example"
      autocomplete="off"
      @update:model-value="value = $event"
    />
  </LabelledField>
</template>
