<script setup lang="ts">
import { ROUND_ORDERS } from '~~/shared/rounds'
import type { RoundMannerForm } from '~~/shared/schemas/round'
import { ORDER_WORDS, PAUSES, sayPause } from '~/words/rounds'

/** How a round goes: its name, its order, and when the next one is dialled. */
defineProps<{ errors: Record<string, string> }>()
const manner = defineModel<RoundMannerForm>({ required: true })

const set = (values: Partial<RoundMannerForm>) => manner.value = { ...manner.value, ...values }
const ORDERS = ROUND_ORDERS.map(value => ({ value, label: ORDER_WORDS[value] }))
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
/** A list that drops down shows no choice whose value is nothing. */
const BY_KEY = -1
const PAUSE_CHOICES = PAUSES.map(seconds => ({ value: seconds ?? BY_KEY, label: capital(sayPause(seconds)) }))
</script>

<template>
  <LabelledField
    id="round-name"
    v-slot="{ input }"
    label="Name of the round"
    :error="errors.name"
  >
    <InputText
      v-bind="input"
      :model-value="manner.name"
      autocomplete="off"
      autofocus
      @update:model-value="set({ name: $event })"
    />
  </LabelledField>
  <div class="two">
    <LabelledField
      id="round-order"
      v-slot="{ choice }"
      label="In which order"
    >
      <Select
        v-bind="choice"
        :model-value="manner.order"
        :options="ORDERS"
        option-value="value"
        option-label="label"
        @update:model-value="set({ order: $event })"
      />
    </LabelledField>
    <LabelledField
      id="round-pause"
      v-slot="{ choice }"
      label="The next one is dialled"
    >
      <Select
        v-bind="choice"
        :model-value="manner.pauseSeconds ?? BY_KEY"
        :options="PAUSE_CHOICES"
        option-value="value"
        option-label="label"
        @update:model-value="set({ pauseSeconds: $event === BY_KEY ? null : $event })"
      />
    </LabelledField>
    <LabelledField
      id="round-hours"
      v-slot="{ input }"
      label="Nobody a second time within, in hours"
      :error="errors.notWithinHours"
    >
      <InputText
        v-bind="input"
        :model-value="String(manner.notWithinHours)"
        type="number"
        min="1"
        max="2160"
        @change="set({ notWithinHours: Number(($event.target as HTMLInputElement).value) })"
      />
    </LabelledField>
    <slot />
  </div>
</template>

<style scoped>
.two { display: grid; grid-template-columns: 1fr 1fr; gap: var(--space-5); align-items: end; }
@media (max-width: 700px) { .two { grid-template-columns: minmax(0, 1fr); } }
</style>
