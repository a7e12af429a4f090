<script setup lang="ts">
/** A whole number that is typed, under its label; nothing is null. */
const { id, label, error = '', least, most, placeholder } = defineProps<{
  id: string
  label: string
  error?: string
  least?: number
  most?: number
  placeholder?: string
}>()
const number = defineModel<number | null>({ required: true })
const take = (typed: string | undefined) => number.value = typed === undefined || typed.trim() === '' ? null : Number(typed)
</script>

<template>
  <LabelledField
    :id="id"
    v-slot="{ input }"
    :label="label"
    :error="error"
  >
    <InputText
      v-bind="input"
      :model-value="String(number ?? '')"
      type="number"
      :min="least"
      :max="most"
      :placeholder="placeholder"
      class="number"
      @update:model-value="take"
    />
  </LabelledField>
</template>

<style scoped>
.number { width: 9rem; }
</style>
