<script setup lang="ts">
/**
 * A field of a form: its label, the control in the slot, and what is wrong with it, tied together for the
 * eye and the ear.
 *
 * @example
 * <LabelledField id="city" v-slot="{ input }" label="City" :error="errors.city"><InputText v-bind="input" v-model="city" /></LabelledField>
 */
const { id, label, error = '' } = defineProps<{ id: string, label: string, error?: string }>()

const described = computed(() => error ? `${id}-error` : undefined)
const wrong = computed(() => error ? { 'invalid': true, 'aria-invalid': true } : {})
/** For a plain input or text area. */
const input = computed(() => ({ id, ...wrong.value, 'aria-describedby': described.value }))
/** For what is chosen from a list that drops down, whose button is named by the label. */
const choice = computed(() => ({ 'inputId': id, 'ariaLabelledby': `${id}-label`, 'invalid': !!error, 'aria-describedby': described.value }))
</script>

<template>
  <div class="field">
    <label
      :id="`${id}-label`"
      :for="id"
    >{{ label }}</label>
    <slot
      :input="input"
      :choice="choice"
    />
    <p
      v-if="error"
      :id="`${id}-error`"
      class="field-error"
    >
      {{ error }}
    </p>
  </div>
</template>
