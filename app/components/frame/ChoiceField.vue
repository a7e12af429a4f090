<script setup lang="ts" generic="T extends string">
/**
 * One of a few that are always the same, under its label.
 *
 * @example
 * <ChoiceField id="bind" v-model="bind" label="How one connects" :choices="BINDS.map(value => ({ value, label: WORDS[value] }))" />
 */
const { id, label, choices, none = null, error = '' } = defineProps<{
  id: string
  label: string
  choices: readonly { value: T, label: string }[]
  /** What it says as long as nothing is chosen. */
  none?: string | null
  error?: string
}>()
const chosen = defineModel<T | ''>({ required: true })
</script>

<template>
  <LabelledField
    :id="id"
    v-slot="{ input }"
    :label="label"
    :error="error"
  >
    <select
      v-bind="input"
      v-model="chosen"
      class="plain-field"
    >
      <option
        v-if="none !== null"
        value=""
        disabled
      >
        {{ none }}
      </option>
      <option
        v-for="{ value, label: words } in choices"
        :key="value"
        :value="value"
      >
        {{ words }}
      </option>
    </select>
  </LabelledField>
</template>
