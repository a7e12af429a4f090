<script setup lang="ts">
/** A time zone, chosen by its name. */
const { id, label, error = '' } = defineProps<{ id: string, label: string, error?: string }>()
const zone = defineModel<string>({ required: true })

// a browser does not list every name of a zone that it knows, such as its own
const zones = [...new Set([zone.value, ...Intl.supportedValuesOf('timeZone')])].sort()
</script>

<template>
  <LabelledField
    :id="id"
    v-slot="{ choice }"
    :label="label"
    :error="error"
  >
    <Select
      v-bind="choice"
      v-model="zone"
      :options="zones"
      filter
    />
  </LabelledField>
</template>
