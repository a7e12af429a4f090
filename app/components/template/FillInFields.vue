<script setup lang="ts">
import { DayField, TimeField } from '#components'
import type { Component } from 'vue'
import type { FillIn, FillInKind } from '~~/core/template/fill-ins'

/** A field for each thing that is filled in when a template is sent. Their ids begin with `of`; what is wrong is given by their keys. */
const { fillIns, of, errors } = defineProps<{ fillIns: FillIn[], of: string, errors: Record<string, string> }>()
const answers = defineModel<Record<string, string>>({ required: true })

const TYPED: Partial<Record<FillInKind, Component>> = { date: DayField, time: TimeField }
</script>

<template>
  <LabelledField
    v-for="one in fillIns"
    :id="`${of}-${one.key}`"
    :key="one.key"
    v-slot="{ input }"
    :label="one.label"
    :error="errors[one.key]"
  >
    <select
      v-if="one.kind === 'choice'"
      :id="input.id"
      v-model="answers[one.key]"
      class="plain-field blank"
      :aria-invalid="!!errors[one.key]"
      :aria-describedby="input['aria-describedby']"
    >
      <option
        v-for="option in one.options"
        :key="option"
      >
        {{ option }}
      </option>
    </select>
    <component
      :is="TYPED[one.kind]"
      v-else-if="TYPED[one.kind]"
      :id="input.id"
      :model-value="answers[one.key] ?? ''"
      roomy
      :aria-invalid="!!errors[one.key]"
      :aria-describedby="input['aria-describedby']"
      @update:model-value="answers[one.key] = $event"
    />
    <input
      v-else
      :id="input.id"
      v-model="answers[one.key]"
      class="plain-field blank"
      type="text"
      :inputmode="one.kind === 'number' ? 'decimal' : undefined"
      :placeholder="one.example ? `such as ${one.example}` : undefined"
      :aria-invalid="!!errors[one.key]"
      :aria-describedby="input['aria-describedby']"
      autocomplete="off"
    >
  </LabelledField>
</template>

<style scoped>
.blank { width: 100%; padding: var(--space-2) var(--space-3); }
.blank[aria-invalid='true'] { border-color: var(--wrong); }
.blank::placeholder { color: var(--quiet); opacity: 1; }
</style>
