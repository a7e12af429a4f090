<script setup lang="ts">
import { DayField, TimeField } from '#components'
import type { Component } from 'vue'
import type { FieldValue } from '~~/core/fields/value'
import type { Field } from '~~/core/template/fields'

/** A value of one of a record's own fields, asked for as its kind is. Nothing chosen is no value. */
const { field, label, empty } = defineProps<{ field: Field, label: string, /** What no value means here. */ empty: string }>()
const value = defineModel<FieldValue>({ required: true })

const TYPED: Partial<Record<Field['kind'], Component>> = { date: DayField, time: TimeField }
const isNumber = computed(() => field.kind === 'number' || field.kind === 'money')
const choices = computed(() => field.kind === 'yes-no' ? ['yes', 'no'] : field.kind === 'choice' ? field.options ?? [] : null)
const shown = computed(() =>
  value.value === null ? '' : typeof value.value === 'boolean' ? (value.value ? 'yes' : 'no') : String(value.value),
)
const take = (event: Event) => value.value = (event.target as HTMLInputElement).value || null
</script>

<template>
  <select
    v-if="choices"
    class="plain-field"
    :value="shown"
    :aria-label="label"
    @change="take"
  >
    <option value="">
      {{ empty }}
    </option>
    <option
      v-for="one in choices"
      :key="one"
    >
      {{ one }}
    </option>
  </select>
  <component
    :is="TYPED[field.kind]"
    v-else-if="TYPED[field.kind]"
    :model-value="shown"
    :aria-label="label"
    :placeholder="empty"
    @update:model-value="value = $event || null"
  />
  <input
    v-else
    class="plain-field"
    :type="isNumber ? 'number' : 'text'"
    :step="isNumber ? 'any' : undefined"
    :value="shown"
    :aria-label="label"
    :placeholder="empty"
    autocomplete="off"
    @input="take"
  >
</template>

<style scoped>
select, input { padding: var(--space-1) var(--space-3); width: 9rem; }
</style>
